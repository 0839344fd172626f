import { realpathSync } from 'node:fs';
import { isAbsolute, sep } from 'node:path';
import { refuse } from '../errors';

/** The folders that content may be read from over the web: those that whoever started the server named. */
export const contentFolders = (): readonly string[] => JSON.parse(process.env.KEPHALON_CONTENT ?? '[]') as string[];

/** Throws a `UserError` for a folder that is neither one of them nor below one. Links are followed before it is judged. */
export function refuseFolder(folder: string) {
	const allowed = contentFolders();
	if (allowed.length === 0) throw refuse('no-content-folders');
	const told = `Folders that may be read: ${allowed.join(', ')}. Start Kephalon with --content to allow another.`;
	if (!isAbsolute(folder)) throw refuse('content-folder-not-whole', { told });
	const real = realPath(folder);
	const isIn = allowed.some((one) => {
		const top = realPath(one);
		return top !== undefined && real !== undefined && (real === top || real.startsWith(top + sep));
	});
	if (!isIn) throw refuse('content-folder-closed', { folder, told });
}

function realPath(path: string): string | undefined {
	try {
		return realpathSync(path);
	} catch {
		return undefined;
	}
}
