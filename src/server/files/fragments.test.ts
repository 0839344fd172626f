import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, expect, test } from 'vitest';
import { Resolver, type Page } from '$core';
import type { HeadSource } from '../releases/headSource';
import { writeFragments } from './fragments';

let top = '';
beforeEach(() => (top = mkdtempSync(join(tmpdir(), 'kephalon-fragments-'))));
afterEach(() => rmSync(top, { recursive: true, force: true }));

const site = { name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] };
const resolver = new Resolver({ site, types: [], pictures: [] }, '');
const page = (path: string): Page => ({ path, type: 't', state: 'live', fields: { title: path }, rules: [] });
const sourceOf = (paths: readonly string[]): HeadSource => ({
	said: 'release 3',
	paths: () => paths,
	at: (path) => (path === '/gone' ? 'not in release 3' : { head: resolver.resolveHead(page(path)), leftOut: [] })
});
const write = (...paths: string[]) => writeFragments(join(top, 'heads'), sourceOf(paths));
const files = () => (readdirSync(join(top, 'heads'), { recursive: true }) as string[]).sort();

test('each head stands where a web server looks for its page', () => {
	expect(write('/', '/walks/', '/walks/one', '/tides.html', '/caf%C3%A9%20b')).toEqual({ written: 5, left: [] });
	expect(files()).toEqual([
		...['.kephalon-fragments', 'café b.html', 'index.html', 'tides.html', 'walks', 'walks/index.html', 'walks/one.html']
	]);
	expect(readFileSync(join(top, 'heads/walks/one.html'), 'utf8')).toContain('<title>/walks/one</title>');
});

test('what cannot be written is told, and nothing is written elsewhere', () => {
	const { written, left } = write('/a', '/a.html', '/../out', `/${'long'.repeat(100)}`, '/gone', '/b', '/b.html/c');
	expect(written).toBe(2);
	expect(left.map(({ path, why }) => [path.slice(0, 8), why])).toEqual([
		['/a.html', 'its file cannot be written (EEXIST)'],
		['/../out', 'it leads out of the folder'],
		['/longlon', 'its file cannot be written (ENAMETOOLONG)'],
		['/gone', 'not in release 3'],
		['/b.html/', expect.stringMatching(/EEXIST|ENOTDIR/)]
	]);
	expect(existsSync(join(top, 'out.html'))).toBe(false);
});

test('the folder is replaced as a whole, and only where it is one of these; what was broken off is taken away', () => {
	write('/a', '/b');
	mkdirSync(join(top, '.heads-new'));
	writeFileSync(join(top, '.heads-new/half'), '');
	write('/b');
	expect(files()).toEqual(['.kephalon-fragments', 'b.html']);
	expect(readdirSync(top)).toEqual(['heads']);
	mkdirSync(join(top, 'mine'));
	writeFileSync(join(top, 'mine/note.txt'), 'mine');
	expect(() => writeFragments(join(top, 'mine'), sourceOf(['/a']))).toThrow('holds other files');
	expect(readdirSync(join(top, 'mine'))).toEqual(['note.txt']);
});
