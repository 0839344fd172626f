/** A path made of a title: small letters and digits of any script, without accents, hyphens between words. */
export function pathOfTitle(title: string, under = ''): string {
	const words = title
		.normalize('NFKD')
		.replace(/\p{M}/gu, '')
		.toLowerCase()
		.match(/[\p{L}\p{N}]+/gu);
	return words ? `${under}/${words.join('-').slice(0, 80)}` : '';
}
