import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { findInFolder } from './folder';
import type { FileFinding } from './folderLinks';

let folder = '';
const write = (name: string, html: string) => {
	mkdirSync(dirname(join(folder, name)), { recursive: true });
	writeFileSync(join(folder, name), html);
};
/** A head with nothing wrong, but for what is added or taken away. */
const whole = (path: string, more = '', without: RegExp = /$^/) =>
	`<!doctype html>\n<html lang="en">\n<head>\n<meta charset="utf-8">\n${[
		`<title>A title of its own for ${path}</title>`,
		`<meta name="description" content="A description of ${path} that is long enough to say what stands on the page.">`,
		`<link rel="canonical" href="https://s.example${path}">`,
		`<meta property="og:title" content="Shared: ${path}">`,
		`<meta property="og:image" content="https://s.example/pictures${path}.jpg">`
	]
		.filter((line) => !without.test(line))
		.join('\n')}\n${more}</head>\n<body><h1>${path}</h1><p>Text.</p></body>\n</html>\n`;

beforeAll(() => {
	folder = mkdtempSync(join(tmpdir(), 'kephalon-check-'));
	write('sound.html', whole('/sound'));
	write('bare.html', whole('/bare', '', /description|og:image/));
	write('twice.html', whole('/twice', '<meta property="og:title" content="Another tool’s">\n'));
	write('relative.html', whole('/relative', '<meta property="og:video" content="films/one.mp4">\n'));
	write('local.html', whole('/local', '<meta property="og:url" content="http://localhost:3000/local">\n'));
	write('hidden.html', whole('/hidden', '<meta name="robots" content="noindex">\n'));
	write('gone.html', whole('/gone').replace('href="https://s.example/gone"', 'href="https://s.example/never"'));
	write('one.html', whole('/one', '<link rel="alternate" hreflang="fr" href="https://s.example/fr/un">\n'));
	write('fr/un.html', whole('/fr/un', '<link rel="alternate" hreflang="de" href="/de/eins">\n'));
	write('a/same.html', whole('/a/same').replace(/<title>.*<\/title>/, '<title>The same title</title>'));
	write('b/same.html', whole('/b/same').replace(/<title>.*<\/title>/, '<title>The same title</title>'));
	for (const [at, to] of ['/docs', '/docs/', '/docs/index.html', '/plain.html', '/plain', '/caf%C3%A9', '/'].entries())
		write(
			`link${at}.html`,
			whole(`/link${at}`).replace(`href="https://s.example/link${at}"`, `href="https://s.example${to}"`)
		);
	write('index.html', whole('/'));
	write('docs/index.html', whole('/docs/'));
	write('plain.html', whole('/plain.html'));
	write('café.html', whole('/caf%C3%A9'));
	write('leads-on.html', '<meta http-equiv="refresh" content="0; url=/sound.html">');
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const told = (found: readonly FileFinding[], file: string) =>
	found
		.filter((one) => one.file === file)
		.map(({ finding, line }) => `${finding.code} ${finding.tag ?? ''} ${line ?? '-'}`);

describe('a folder of HTML, as it stands', () => {
	test.each([
		['sound.html', []],
		['bare.html', ['missing-tag description -', 'missing-tag og:image -']],
		['twice.html', ['doubled-tag og:title 8']],
		['relative.html', ['relative-address og:video 10', 'file-missing og:video 10']],
		['local.html', ['local-served og:url 10']],
		['hidden.html', ['noindex-served robots 10']],
		['gone.html', ['canonical-nowhere canonical 7']],
		['one.html', ['version-one-way hreflang 10']],
		['fr/un.html', ['relative-address alternate 10', 'version-nowhere hreflang 10']],
		['a/same.html', ['shared-title title 5']],
		['b/same.html', ['shared-title title 5']],
		['leads-on.html', []]
	])('%s', (file, wanted) => {
		expect(told(findInFolder(folder).findings, file)).toEqual(wanted);
	});

	test('a page is found with and without its ending, and with and without the slash', () => {
		const found = findInFolder(folder).findings;
		// Each names another page, that is there.
		for (let at = 0; at < 7; at++) {
			const code = at === 6 ? 'names-home' : 'names-other';
			expect([at, told(found, `link${at}.html`)]).toEqual([at, [`${code} canonical 7`]]);
		}
	});

	test('a folder without pages says so', () => {
		expect(() => findInFolder(join(folder, '..', 'no-such-folder')).findings).toThrow(/no-such-folder/);
	});
});
