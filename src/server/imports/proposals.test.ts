import { ignorer } from './folderSource';
import { expect, test } from 'vitest';
import { proposeTypes } from './proposals';

const many = (folder: string, count: number, ending = '.html') =>
	Array.from({ length: count }, (_, at) => `${folder}page${at}${ending}`);

test('folders that hold enough pages, and not all of them, become types; each pattern fits what it counts', () => {
	const files = [...many('', 3), ...many('reserves/', 20), ...many('walks/sub/', 8), ...many('odd/', 2), '404.html'];
	const found = proposeTypes(files);
	expect(found.map(({ type, pages }) => `${type} ${pages}`)).toEqual(['not-found 1', 'reserves 20', 'walks 8']);
	for (const { pattern, pages } of found) expect(files.filter(ignorer({ ignore: [pattern] }))).toHaveLength(pages);
});

test('pages that programs make are told by their names, in any folder', () => {
	const files = [
		...many('api/', 30),
		...many('api/', 6, '_source.html'),
		...['Gull', 'Tern', 'Skua', 'Auk'].map((name) => `api/class${name}.html`)
	];
	const found = proposeTypes(files);
	expect(found.map(({ type, pages }) => `${type} ${pages}`)).toEqual(['source 6', 'class 4']);
	for (const { pattern, pages } of found) expect(files.filter(ignorer({ ignore: [pattern] }))).toHaveLength(pages);
});

test('pages that stand in the folder of a language itself are of no type; a name as long as a language’s is one', () => {
	const files = [
		...many('fr/', 6),
		...many('pt-br/walks/', 6),
		...many('en-q/walks/', 6),
		...many('go/', 6),
		...many('', 9)
	];
	expect(proposeTypes(files).map(({ pattern }) => pattern)).toEqual(['fr/**', 'pt-br/walks/**', 'en-q/**', 'go/**']);
});

test('below folders of languages the next folder tells; signs of patterns in names are plain', () => {
	const files = [...many('en/walks/', 5), ...many('fr/walks/', 5), ...many('a(b)/', 5), ...many('', 2)];
	const found = proposeTypes(files);
	expect(found.map(({ pattern }) => pattern)).toEqual(['en/walks/**', 'fr/walks/**', 'a\\(b\\)/**']);
	for (const { pattern, pages } of found) expect(files.filter(ignorer({ ignore: [pattern] }))).toHaveLength(pages);
});
