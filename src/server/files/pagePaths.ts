import { folderForm } from '$core';
import { decoded, encodedPath } from './folder';

/** A path as it is kept: as it comes, or with its characters encoded, whichever way whoever asks wrote them. */
export function* spellingsOf(path: string): Iterable<string> {
	yield path;
	const plain = decoded(path);
	for (const other of new Set([encodedPath(path), encodedPath(plain), plain])) if (other !== path) yield other;
}

/** What a page's address may be otherwise: servers answer for a folder by the file that opens it. */
export function formsOf(address: string): string[] {
	if (address.endsWith('/')) return [address, `${address}index.html`];
	const folder = folderForm(address);
	return folder === address ? [address] : [address, folder];
}
