/** A type that pages seem to be of, by where their files stand and how they are called. */
export interface TypeProposal {
	readonly pattern: string;
	readonly type: string;
	readonly pages: number;
	/** Some of the files, so that one sees what is meant. */
	readonly examples: readonly string[];
}

/** So many pages, and this share of all, make a type of their own. */
const LEAST = 4;
const SHARE = 0.01;
const MOST = 12;

/** Files that programs make beside the pages: indexes, views of sources. By their names, whatever folder they stand in. */
const BY_NAME = [
	{
		type: 'index',
		pattern: '**/{genindex*,index-all*,*-index,ix01,alphabetical*,search}.{html,htm,xhtml}',
		is: /(^|\/)(genindex[^/]*|index-all[^/]*|[^/]+-index|ix01|alphabetical[^/]*|search)\.x?html?$/i
	},
	{ type: 'source', pattern: '**/*{_source,.src,-source}.{html,htm,xhtml}', is: /(_source|\.src|-source)\.x?html?$/i },
	{
		type: 'class',
		pattern: '**/{class*,struct*,interface*}.{html,htm,xhtml}',
		is: /(^|\/)(class|struct|interface)[A-Z_][^/]*\.x?html?$/
	},
	{ type: 'not-found', pattern: '{404,not-found,notfound}.{html,htm,xhtml}', is: /^(404|not-?found)\.x?html?$/i }
] as const;

/**
 * Types for the pages of a folder, to be taken or left: by names that programs give, then by folders that hold enough
 * pages and not all of them. Paths are those of the files, without a slash before them.
 */
export function proposeTypes(files: readonly string[]): TypeProposal[] {
	const named = BY_NAME.flatMap(({ type, pattern, is }) => {
		const all = files.filter((file) => is.test(file));
		// One page that is not found is enough.
		return all.length >= (type === 'not-found' ? 1 : LEAST) ? [proposal(pattern, type, all)] : [];
	});
	const folders = new Map<string, string[]>();
	for (const file of files) {
		const parts = file.split('/');
		// Below a folder that holds everything, such as one for a language, the next one tells.
		const depth = parts.length > 2 && /^[a-z]{2}(-[a-z]{2,4})?$/i.test(parts[0] as string) ? 2 : 1;
		if (parts.length <= depth) continue;
		const folder = parts.slice(0, depth).join('/');
		const all = folders.get(folder);
		if (all) all.push(file);
		else folders.set(folder, [file]);
	}
	const least = Math.max(LEAST, files.length * SHARE);
	const byFolder = [...folders]
		.filter(([, all]) => all.length >= least && all.length < files.length)
		.sort(([, a], [, b]) => b.length - a.length)
		.map(([folder, all]) => proposal(`${escaped(folder)}/**`, nameOf(folder), all));
	return [...named, ...byFolder].slice(0, MOST);
}

const proposal = (pattern: string, type: string, files: readonly string[]): TypeProposal => ({
	...{ pattern, type, pages: files.length },
	examples: files.slice(0, 3)
});

/** Signs that mean something in a pattern, made plain. */
const escaped = (folder: string) => folder.replace(/[\\*?[\]{}()!+@|]/g, '\\$&');

const nameOf = (folder: string) =>
	(folder.split('/').at(-1) as string)
		.replace(/[^\p{L}\p{N} _-]+/gu, '-')
		.replace(/^[^\p{L}\p{N}]+/u, '')
		.slice(0, 60) || 'page';
