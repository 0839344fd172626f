import { describe, expect, test } from 'vitest';
import { languagesOfFiles, versionOf } from './languages';

describe('the language that the place of a file tells', () => {
	const site = ['index.html', 'fr/a.html', 'de/a.html', 'pt-BR/deep/a.html', 'img/x.html'];
	test.each([
		['fr/a.html', site, 'fr'],
		['pt-BR/deep/a.html', site, 'pt-BR'],
		['img/x.html', site, undefined],
		['index.html', site, undefined],
		// One alone, and a few among many, are names like any other.
		['is/a.html', ['is/a.html', 'was/b.html', 'docs/c.html'], undefined],
		['de/a.html', ['de/a.html', 'fr/b.html', 'docs/c', 'api/c', 'blog/c', 'shop/c'], undefined],
		['manual/ja/a.html', ['manual/ja/a.html', 'manual/en/a.html', 'index.html'], 'ja'],
		['a/b/ja/x.html', ['a/b/ja/x.html', 'a/b/en/x.html', 'ab/ja/y.html', 'ab/c/y.html', 'ab/d/y.html'], 'ja'],
		['ab/ja/y.html', ['a/b/ja/x.html', 'a/b/en/x.html', 'ab/ja/y.html', 'ab/c/y.html', 'ab/d/y.html'], undefined],
		['a.html.fr', ['a.html.fr'], 'fr'],
		['a.fr.html', ['a.fr.html', 'a.html'], 'fr'],
		['a.pt_BR.html', ['a.pt_BR.html', 'a.de.html'], 'pt-BR'],
		['parser.pl.html', ['parser.pl.html', 'index.html'], undefined],
		['Size.NA.html', ['Size.NA.html', 'Size.html'], undefined],
		['a.html.NA', ['a.html.NA', 'a.html.fr'], undefined],
		['a.html.qq', ['a.html.qq'], undefined],
		['lib.so.html', ['lib.so.html'], undefined],
		['jquery.min.html', [], undefined],
		['v1.2.html', [], undefined]
	])('%s', (path, paths, language) => {
		expect(languagesOfFiles(paths)(path)).toBe(language);
	});
});

test.each([
	['a.html.fr', 'a.html'],
	['deep/a.xhtml.pt_BR', 'deep/a.xhtml'],
	['a.htm.de', 'a.htm'],
	['a.html.zh-Hant', 'a.html'],
	['a.fr.html', 'a.html'],
	['fr/deep/a.html', 'deep/a.html'],
	['deep/fr/a.html', 'deep/a.html'],
	// What names no language stands for itself.
	['a.html', 'a.html'],
	['a.html.qq', 'a.html.qq'],
	['Size.NA.html', 'Size.NA.html'],
	['a.html.f', 'a.html.f'],
	['a.html.french', 'a.html.french'],
	['a.html.12', 'a.html.12'],
	['a.html.fr.bak', 'a.html.fr.bak'],
	['fr', 'fr']
])('%s is a version of %s', (path, version) => expect(versionOf(path)).toBe(version));
