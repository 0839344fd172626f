import { createRequire } from 'node:module';
import { readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import type { Font } from '$core';

const require = createRequire(import.meta.url);

/** One file of a font: its package, and the name of the file in it. */
type FontFile = readonly [packageName: string, file: string];

const subsets = (packageName: string, name: string, parts: readonly string[]): FontFile[] =>
	parts.map((part) => [packageName, `${name}-${part}-wght-normal.woff2`]);
const EUROPE = ['latin', 'latin-ext', 'greek', 'cyrillic', 'cyrillic-ext', 'vietnamese'];

const FAMILIES: Readonly<Record<Font, readonly FontFile[]>> = {
	Literata: subsets('@fontsource-variable/literata', 'literata', EUROPE),
	Commissioner: subsets('@fontsource-variable/commissioner', 'commissioner', EUROPE)
};

/** Scripts that neither of the two has; each in a usual and a strong weight, where there are two. */
const OTHERS: readonly FontFile[] = [
	['@fontsource/noto-sans-arabic', 'noto-sans-arabic-arabic-500-normal.woff2'],
	['@fontsource/noto-sans-arabic', 'noto-sans-arabic-arabic-700-normal.woff2'],
	['@fontsource/noto-sans-hebrew', 'noto-sans-hebrew-hebrew-500-normal.woff2'],
	['@fontsource/noto-sans-hebrew', 'noto-sans-hebrew-hebrew-700-normal.woff2'],
	['@fontsource/noto-sans-devanagari', 'noto-sans-devanagari-devanagari-500-normal.woff2'],
	['@fontsource/noto-sans-devanagari', 'noto-sans-devanagari-devanagari-700-normal.woff2'],
	['@fontsource/kosugi', 'kosugi-japanese-400-normal.woff2']
];

const read = ([name, file]: FontFile): Buffer =>
	readFileSync(join(dirname(require.resolve(`${name}/package.json`)), 'files', file));

/** Takes every font from its package, under a name that no font of the machine has. */
export function registerFonts(register: (bytes: Buffer, name: string) => unknown) {
	for (const files of [...Object.values(FAMILIES), OTHERS])
		for (const file of files) register(read(file), nameOf(file));
}

/** The weights of a script are one family, so that the drawing program chooses between them. */
const nameOf = ([name, file]: FontFile) =>
	`kephalon ${name.split('/')[1]} ${file.replace(/-\d00-normal.*|-wght.*/, '')}`;

/** The list of families for a font, first those of its own subsets. */
export const stackOf = (font: Font): string =>
	[...new Set([...FAMILIES[font], ...OTHERS].map(nameOf))].map((name) => `"${name}"`).join(', ');
