import { afterEach, beforeEach, expect, test } from 'vitest';
import {
	ALL_READERS,
	CATALOGUE,
	describeBuiltIns,
	describeOutcome,
	describeRule,
	formatIssue,
	habitsInWords,
	kindOfReader,
	labelled,
	nameOfKind,
	nothingFound,
	PAGE_FACTS,
	PAGE_FIELDS,
	purposeOf,
	reportOf,
	SHAPES,
	speakBy,
	STARTING_LAYOUTS,
	STARTING_SETS,
	type IssueCode
} from '../index';
import { describeSkipped } from '../resolve/describe';
import type { Outcome, SkippedSource, TraceStep } from '../resolve/trace';
import { learnFrench } from './index';
import { issues } from './issues';
import { labels } from './labels';
import { names } from './names';
import { readers } from './readers';
import { purposes } from './tags';

/** What the core says where French is spoken; every word of it differs from what it says in English. */

learnFrench();
beforeEach(() => void speakBy(() => 'fr'));
afterEach(() => void speakBy(() => 'en-GB'));

const inEnglish = <T>(work: () => T): T => {
	speakBy(() => 'en-GB');
	const said = work();
	speakBy(() => 'fr');
	return said;
};

test('every tag and every reader is told in French', () => {
	for (const tag of CATALOGUE) {
		expect(Object.hasOwn(purposes, tag.name)).toBe(true);
		expect(purposeOf(tag)).not.toBe(inEnglish(() => purposeOf(tag)));
	}
	expect(Object.keys(purposes).sort()).toEqual([...new Set(CATALOGUE.map(({ name }) => name))].sort());
	for (const reader of ALL_READERS) expect(kindOfReader(reader)).not.toBe(inEnglish(() => kindOfReader(reader)));
	expect(Object.keys(readers.kinds).sort()).toEqual(ALL_READERS.map(({ id }) => id).sort());
	// What is no row of the catalogue keeps its own words.
	expect(purposeOf({ name: 'constructor', purpose: 'Ours.' })).toBe('Ours.');
});

test('names and remarks of what is built in, and no others: words of a site stay as they are', () => {
	const builtIn = [
		...[...PAGE_FIELDS, ...PAGE_FACTS].map((field) => inEnglish(() => field.label ?? '')),
		...Object.values(SHAPES).map(({ says }) => says),
		...STARTING_LAYOUTS.map(({ says }) => says),
		...STARTING_SETS.flatMap(({ label, purpose }) => [label, purpose])
	];
	expect(Object.keys(labels).sort()).toEqual([...new Set(builtIn)].sort());
	expect(PAGE_FIELDS.map(({ label }) => label)).toContain('Image principale');
	expect(JSON.parse(JSON.stringify(PAGE_FIELDS[0]))).toEqual({ name: 'title', kind: 'text', label: 'Titre' });
	expect(labelled('Title')).toBe('Titre');
	expect([labelled('Our own'), labelled('constructor')]).toEqual(['Our own', 'constructor']);
	expect(inEnglish(() => labelled('Title'))).toBe('Title');
});

test('as many habits of each reader as in English, each in French', () => {
	for (const reader of ALL_READERS) {
		const [said, english] = [habitsInWords(reader), inEnglish(() => habitsInWords(reader))];
		expect(said).toHaveLength(english.length);
		for (const [at, habit] of said.entries()) expect(habit).not.toBe(english[at]);
		expect(said.join(' ')).not.toMatch(/undefined|NaN| the /);
	}
	expect(new Set(ALL_READERS.flatMap(habitsInWords))).toMatchSnapshot();
});

test('every issue, with its place', () => {
	const codes = Object.keys(issues.says) as IssueCode[];
	expect(codes.length).toBeGreaterThan(30);
	const told = codes.flatMap((code) =>
		[{ seen: 'goes', expected: 'E' }, { seen: 'page.titel', nearest: 'page.title' }, {}].map((more) =>
			formatIssue({ ...{ code, severity: 'error', start: 3, end: 4 }, ...more } as never, 'a\n{b')
		)
	);
	expect(told.join('\n')).toMatchSnapshot();
	expect(told.join('\n')).toContain('à 2:2');
});

test('what is built in, what a step would use, and what became of it', () => {
	const built = [...new Set(CATALOGUE.flatMap(({ name }) => describeBuiltIns(name)))];
	expect(built).toMatchSnapshot();
	const english = inEnglish(() => new Set(CATALOGUE.flatMap(({ name }) => describeBuiltIns(name))));
	expect(built.filter((one) => english.has(one))).toEqual([]);
	const rules = [
		{ kind: 'template', template: '{page.title}' },
		{ kind: 'borrow', from: 'og:image', shapes: ['wide'] },
		{ kind: 'leaveOut' },
		{
			kind: 'pictures',
			sources: [{ from: 'lead' }, { from: 'file', src: '/a.jpg' }, { from: 'field', name: 'photo' }]
		},
		{ kind: 'found', value: 'As found' },
		{ kind: 'built-in', name: 'borrow', from: 'title' },
		{ kind: 'built-in', name: 'path' }
	];
	expect(rules.map((rule) => describeRule({ rule } as unknown as TraceStep))).toMatchSnapshot();
	const picture = { src: '/a.jpg', width: 300, height: 200 };
	const skipped = [
		{ source: 'lead', why: 'missing' },
		{ source: 'composed', why: 'no-layout' },
		...['not-http', 'drawing', 'repeated', 'mark', 'too-narrow', 'too-low', 'wrong-shape'].map((why) => ({
			...{ source: 'lead', why, picture, limit: 600 }
		}))
	] as unknown as SkippedSource[];
	const issue = { code: 'template/unclosed-optional', severity: 'error', start: 0, end: 1 };
	const outcomes = [
		{ kind: 'won' },
		{ kind: 'empty', variables: [] },
		{ kind: 'empty', variables: ['page.a'] },
		{ kind: 'empty', variables: ['page.a', 'page.b'] },
		{ kind: 'borrowed-nothing', from: 'title' },
		{ kind: 'left-out' },
		{ kind: 'loop', tags: ['a', 'b', 'a'] },
		{ kind: 'illegal', value: 'x', expected: 'a number' },
		{ kind: 'too-long', length: 9000 },
		{ kind: 'broken', issue, source: '[[' },
		{ kind: 'cannot-run', issue, source: '[[' },
		{ kind: 'failed' },
		{ kind: 'frame', pages: 12 },
		{ kind: 'repeats-title' },
		...['page', 'type', 'site'].map((layer) => ({ kind: 'set-aside', layer })),
		{ kind: 'no-picture', skipped },
		{ kind: 'no-picture', skipped: [] },
		{ kind: 'not-reached' }
	] as unknown as Outcome[];
	expect([...outcomes.map(describeOutcome), ...skipped.map(describeSkipped)]).toMatchSnapshot();
});

test('kinds of findings have short names, of which none is another’s', () => {
	expect(nameOfKind('no-title')).toBe('sans titre');
	expect(new Set(Object.values(names)).size).toBe(Object.keys(names).length);
	expect(Object.keys(names).filter((code) => nameOfKind(code) === inEnglish(() => nameOfKind(code)))).toEqual([]);
	// What is not in its table, or is a name that any object knows, is its code.
	expect([nameOfKind('rule/double'), nameOfKind('to-string'), nameOfKind('constructor')]).toEqual([
		...['rule/double', 'to string', 'constructor']
	]);
});

test('that nothing was found, and a report that is handed on', () => {
	const [reader, other] = [ALL_READERS[0]!, ALL_READERS[1]!];
	const card = { picture: { address: 'https://s.example/p.jpg' } };
	const of = (readers: readonly { reader: string; card?: object }[], facts?: object, unseen = 0) =>
		nothingFound({ readers, picture: facts && { facts }, unseen });
	const all = () => [
		of([]),
		of([{ reader: reader.id }, { reader: other.id }]),
		of([{ reader: reader.id, card }]),
		of([{ reader: reader.id, card }], {}, 1),
		of([{ reader: reader.id, card }], {}, 3),
		of([{ reader: reader.id, card }], {})
	];
	const english = inEnglish(all);
	expect(all().filter((one, at) => one === english[at])).toEqual([]);
	expect(all()[1]).toContain(`${reader.name} et ${other.name}`);
	const seen = {
		...{ address: 'https://s.example/', made: '2026-05-03T00:00:00.000Z', picture: undefined, unseen: 0 },
		findings: [{ says: 'Elle est vide', mend: 'Remplissez-la.', weight: 7, line: 3 }],
		readers: [
			{ reader: reader.id, isShutOut: true, hops: [{ address: 'https://s.example/', status: 0 }], card: undefined },
			{ reader: other.id, isShutOut: false, hops: [], card: undefined }
		]
	};
	const report = reportOf(seen);
	for (const said of ['lang="fr"', 'Ligne 3.', 'pas de réponse', 'robots.txt l’écarte', kindOfReader(reader)])
		expect(report).toContain(said);
	expect(report.replace(/<style>.*<\/style>/, '')).not.toMatch(/\b(?:readers|looked|answer|picture)\b/i);
	expect(inEnglish(() => reportOf(seen))).toContain('lang="en"');
});
