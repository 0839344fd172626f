import { readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { refuse, REFUSALS, UserError } from '../errors';
import { problem, sentenceOf } from '../http/problem';
import { answeredIn } from '../speaking';
import { COMMAND } from './command';
import { FRENCH_REFUSALS } from './fr';

/** A value that names itself, whether it is printed, joined or gone through. */
const namesItself = (name: string) =>
	Object.assign(new String(`‹${name}›`), {
		join: () => `‹${name}…›`,
		map: (say: (one: string) => string) => [say(`‹${name}›`)]
	});
const named = new Set<string>();
const anything = new Proxy(
	{},
	{
		get(_, name) {
			if (typeof name !== 'string') return undefined;
			named.add(name);
			return namesItself(name);
		}
	}
);
const all = Object.entries(REFUSALS).map(([code, kind]) => ({
	code,
	...(kind as { status: number; exitCode: number; says: (data: unknown) => string })
}));

test('every refusal says what, where and what to do, in sentences; programs know it by its code', async () => {
	const lines = all.map(({ code, status, exitCode, says }) => {
		const sentence = says(anything);
		// Those that only pass on what was found elsewhere end as that does.
		expect({ code, sentence }).toMatchObject({
			code: expect.stringMatching(/^[a-z]+(-[a-z]+)*$/) as string,
			sentence: expect.stringMatching(/[.?›]$/) as string
		});
		expect(sentence).not.toContain('undefined');
		return `${code} ${status}${exitCode === 2 ? ' misuse' : ''}\n\t${sentence.replaceAll('\n', '\n\t')}`;
	});
	// What a sentence names stands beside these in an answer (RFC 9457, 3.1).
	for (const reserved of ['type', 'title', 'status', 'detail', 'instance', 'code'])
		expect(named).not.toContain(reserved);
	await expect(`${lines.sort().join('\n')}\n`).toMatchFileSnapshot('refusals.txt');
});

test('in French it is said for the same codes but the command’s, and names the same', async () => {
	const french = Object.entries(FRENCH_REFUSALS) as [keyof typeof FRENCH_REFUSALS, (data: unknown) => string][];
	expect(french.map(([code]) => code).sort()).toEqual(
		all.flatMap(({ code }) => (Object.hasOwn(COMMAND, code) ? [] : [code])).sort()
	);
	const marks = (sentence: string) => [...sentence.matchAll(/‹[^›]*›/g)].map(String).sort();
	const lines = french.map(([code, says]) => {
		const sentence = says(anything);
		const english = (REFUSALS[code] as { says: (data: unknown) => string }).says(anything);
		expect({ code, names: marks(sentence) }).toEqual({ code, names: marks(english) });
		expect({ code, ends: /[.?›]$/.test(sentence) }).toEqual({ code, ends: true });
		return `${code}\n\t${sentence.replaceAll('\n', '\n\t')}`;
	});
	await expect(`${lines.sort().join('\n')}\n`).toMatchFileSnapshot('refusals.fr.txt');
});

test('who asks in French is refused in French, by the same code', async () => {
	const error = refuse('path-taken', { path: '/a' });
	expect(sentenceOf(error)).toBe('There is a page at /a already. Choose another path.');
	const told = answeredIn('fr', () => problem(error));
	expect(await told.json()).toMatchObject({
		...{ code: 'path-taken', status: 422, path: '/a' },
		detail: 'Il y a déjà une page à /a. Choisissez un autre chemin.'
	});
	// The command speaks English.
	const ofCommand = refuse('name-the-site');
	expect(answeredIn('fr', () => sentenceOf(ofCommand))).toBe(ofCommand.message);
});

test('no two halves of the table name the same code', () => {
	const written = ['command', 'editing', 'ground', 'people', 'reading'].flatMap((file) => [
		...readFileSync(new URL(`${file}.ts`, import.meta.url), 'utf8').matchAll(/^\t'?([a-z-]+)'?: (?:refusal|misuse)\(/gm)
	]);
	expect(written).toHaveLength(all.length);
});

test('a refusal carries its code and what it names, and is made again of them', () => {
	const error = refuse('type-has-pages', { pages: 1, contentType: 'walk' });
	expect(error).toMatchObject({
		...{ name: 'UserError', code: 'type-has-pages', status: 422, exitCode: 1 },
		...{ data: { pages: 1, contentType: 'walk' } },
		message: '1 page is of the type "walk". Say which type it becomes.'
	});
	expect(new UserError(error.code, error.data).message).toBe(error.message);
	expect(refuse('name-the-site')).toMatchObject({ status: 422, exitCode: 2, data: {} });
	expect(refuse('page-missing', { path: '/a' }).status).toBe(404);
});
