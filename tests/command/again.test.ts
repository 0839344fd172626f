import { execFileSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, expect, test } from 'vitest';
import { documentOf } from '../../conformance/parts';
import { Chance } from '../../conformance/chance';

/** A folder of documents made by chance, injected in place again and again: nothing that its authors wrote is lost. */
const program = fileURLToPath(new URL('../../bin/kephalon.js', import.meta.url));
const work = mkdtempSync(join(tmpdir(), 'kephalon-again-'));
afterAll(() => rmSync(work, { recursive: true, force: true }));
const RULES = [
	['title', '{page.title} {separator} {site.name}'],
	['og:title', '{page.title}'],
	['description', 'About {page.title}: {page.summary}'],
	['robots', 'noarchive']
].map(([tag, template]) => ({ tag, kind: 'template', template }));
const filesOf = (folder: string) =>
	(readdirSync(folder, { recursive: true, encoding: 'utf8' }) as string[])
		.filter((name) => name.endsWith('html'))
		.sort()
		.map((name) => [name, readFileSync(join(folder, name), 'utf8')]);

test.each(['keep', 'last', 'never'])(
	'found values are %s: read again, all heads are the same, and no file changes',
	(all) => {
		const [site, db, file] = ['site', 'k.db', 'rules.json'].map((name) => join(work, all, name)) as [
			string,
			string,
			string
		];
		const run = (...args: string[]) =>
			execFileSync(process.execPath, [program, ...args, '--db', db], {
				encoding: 'utf8',
				stdio: ['ignore', 'pipe', 'ignore'],
				maxBuffer: 1e8
			});
		const chance = new Chance(all.length * 7 + all.charCodeAt(0));
		for (let at = 0; at < 90; at++) {
			const path = join(site, ['', 'a', 'b/c', 'fr'][at % 4] as string, `p${at}.${at % 9 === 0 ? 'xhtml' : 'html'}`);
			mkdirSync(dirname(path), { recursive: true });
			writeFileSync(path, documentOf(chance));
		}
		const read = () => run('import', site, '--site', 'F', '--base', 'https://f.example/');
		read();
		const data = JSON.parse(run('export', '--site', 'F')) as { site: object };
		writeFileSync(file, JSON.stringify({ ...data, site: { ...data.site, rules: RULES, foundPolicy: { all } } }));
		run('import', file);
		read();
		const heads = run('render', '--all', '--site', 'F');
		run('inject', site, '--in-place', '--site', 'F');
		const once = filesOf(site);
		read();
		expect(run('render', '--all', '--site', 'F')).toBe(heads);
		run('inject', site, '--in-place', '--site', 'F');
		expect(filesOf(site)).toEqual(once);
		// A stranger who reads what was injected sees the head that was released, links and all.
		expect(once.filter(([, text]) => /rel="alternate"(?![^>]*(?:hreflang|type)=)/.test(text as string))).toEqual([]);
	}
);
