import { realpathSync } from 'node:fs';
import { isAbsolute, sep } from 'node:path';
import { UserError } from '../errors';

/** The folders that content may be read from over the web: those that whoever started the server named. */
export const contentFolders = (): readonly string[] => JSON.parse(process.env.KEPHALON_CONTENT ?? '[]') as string[];

/** Throws a `UserError` for a folder that is neither one of them nor below one. Links are followed before it is judged. */
export function refuseFolder(folder: string) {
	const allowed = contentFolders();
	if (allowed.length === 0)
		throw new UserError(
			'No folder may be read over the web. Start Kephalon with --content and the folder to read from.'
		);
	const told = `Folders that may be read: ${allowed.join(', ')}. Start Kephalon with --content to allow another.`;
	if (!isAbsolute(folder)) throw new UserError(`Name the folder by its whole path. ${told}`);
	const real = realPath(folder);
	const isIn = allowed.some((one) => {
		const top = realPath(one);
		return top !== undefined && real !== undefined && (real === top || real.startsWith(top + sep));
	});
	if (!isIn) throw new UserError(`The folder ${folder} may not be read, or is not there. ${told}`);
}

function realPath(path: string): string | undefined {
	try {
		return realpathSync(path);
	} catch {
		return undefined;
	}
}
