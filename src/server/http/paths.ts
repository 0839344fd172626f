import { homedir, tmpdir } from 'node:os';
import { dirname, resolve, sep } from 'node:path';

/** Folders of this machine that sentences may name: those of the database, of the program, of its user, of what is temporary. */
const foldersHere = () =>
	[process.env.KEPHALON_DB && dirname(resolve(process.env.KEPHALON_DB)), process.cwd(), homedir(), tmpdir()]
		.filter((folder): folder is string => folder !== undefined && folder.length > 1)
		.sort((a, b) => b.length - a.length);

/** A sentence as it goes out over the web: files by their names, without where they lie on this machine. */
export const withoutPaths = (text: string): string =>
	foldersHere().reduce((left, folder) => left.replaceAll(folder + sep, ''), text);
