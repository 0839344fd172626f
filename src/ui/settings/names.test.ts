import { readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { SETTINGS_OF } from './names';

const FILES = {
	site: ['SiteSettings', 'SiteCards', 'RobotsPaths'],
	type: ['types/TypeSettings', 'types/LiveData'],
	page: ['PageSettings']
} as const;
/** The names of the settings and pictures that components write down as they are, by their keys. */
const namesIn = (files: readonly string[]) =>
	new Set(
		files.flatMap((file) =>
			[
				...readFileSync(`src/ui/settings/${file}.svelte`, 'utf8').matchAll(
					/<(?:Setting|PictureField)\s+name=\{wording\.(\w+)\}/g
				)
			].map(([, name]) => name ?? '')
		)
	);

test.each(['site', 'type', 'page'] as const)(
	'every setting of the %s can be asked for by its name, and none else',
	(layer) => {
		expect([...SETTINGS_OF[layer]].sort()).toEqual([...namesIn(FILES[layer])].sort());
	}
);
