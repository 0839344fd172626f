import type { Issue, IssueCode } from '../issue';
import { checkTemplate, type TemplateContext } from './check';
import { callOffered, filterOf } from './filters';
import { placeholdersIn } from './nodes';
import { parseTemplate } from './parse';

/** What would mend an issue, in a few words, and the template as it would be then. */
export interface TemplateMend {
	readonly says: string;
	readonly text: string;
}

type Place = Pick<Issue, 'start' | 'end'>;
type Ways = (source: string, issue: Issue) => readonly TemplateMend[];

const put = (source: string, { start, end }: Place, text: string) => source.slice(0, start) + text + source.slice(end);
const without = (source: string, place: Place) => put(source, place, '');
const quoted = (text: string) => (text.length > 40 ? `“${text.slice(0, 39)}…”` : `“${text}”`);

/** The braces round a place, both included. */
function bracesRound(source: string, { start, end }: Place): Place {
	const close = source.indexOf('}', end - 1);
	return { start: source.lastIndexOf('{', start), end: close < 0 ? source.length : close + 1 };
}

/** The place with the sign before it, and the space between: `?? x`, `| clip`. */
const withSign = (source: string, { start, end }: Place, sign: string): Place => ({
	start: source.slice(0, source.lastIndexOf(sign, start)).trimEnd().length,
	end
});

const takeAway = (source: string, place: Place): TemplateMend => ({
	says: `Take ${quoted(source.slice(place.start, place.end).trim())} away`,
	text: without(source, place)
});

/** What was seen, wherever it stands at the place, written as the nearest name. */
const nearest: Ways = (source, { start, end, seen = '', nearest: name }) => {
	const at = source.indexOf(seen, start);
	if (!name || at < 0 || at > end) return [];
	return [{ says: `Write ${quoted(name)}`, text: put(source, { start: at, end: at + seen.length }, name) }];
};

/** The filter that an issue is about, with its arguments. */
function callAt(source: string, { start }: Place): Place | undefined {
	const calls = placeholdersIn(parseTemplate(source).nodes).flatMap(({ filters }) => filters);
	return calls
		.map((call) => ({ start: call.start, end: call.args.at(-1)?.end ?? call.end }))
		.find((call) => call.start <= start && start < call.end);
}

const filterAway: Ways = (source, issue) => {
	const call = callAt(source, issue);
	return call ? [takeAway(source, withSign(source, call, '|'))] : [];
};
const placeholderAway: Ways = (source, issue) => [takeAway(source, bracesRound(source, issue))];
const itselfAway: Ways = (source, issue) => [takeAway(source, issue)];

/** Where a brace that was opened may close: behind what reads as one variable, before the next brace, at the end. */
const closeBrace: Ways = (source, { start }) => {
	const name = /^\{\s*[\w.:-]+/.exec(source.slice(start, start + 200))?.[0].length ?? 1;
	const next = source.indexOf('{', start + 1);
	return [...new Set([next < 0 ? source.length : next, start + name])].map((at) => ({
		says: at === start + name ? `Close it: ${quoted(`${source.slice(start, at)}}`)}` : 'Close it with “}”',
		text: put(source, { start: at, end: at }, '}')
	}));
};

const WAYS: Readonly<Partial<Record<IssueCode, Ways>>> = {
	'template/unknown-root': nearest,
	'template/unknown-variable': nearest,
	'template/unknown-filter': (source, issue) => [...nearest(source, issue), ...filterAway(source, issue)],
	'template/wrong-kind': filterAway,
	'template/wrong-arguments': (source, issue) => {
		const [{ seen = '' }, place] = [issue, callAt(source, issue)];
		if (!filterOf(seen) || !place) return [];
		const call = callOffered(seen);
		return [{ says: `Write ${quoted(call)}`, text: put(source, place, call) }, ...filterAway(source, issue)];
	},
	'template/unclosed-placeholder': closeBrace,
	'template/unclosed-optional': (source) => [{ says: 'Close it with “]]”', text: `${source}]]` }],
	'template/unclosed-string': (source, { start }) => {
		const brace = source.indexOf('}', start);
		const end = brace < 0 ? source.length : brace;
		const at = source.slice(0, end).trimEnd().length;
		return [{ says: 'Close the text', text: put(source, { start: at, end: at }, brace < 0 ? '"}' : '"') }];
	},
	'template/empty-placeholder': itselfAway,
	'template/unexpected': (source, issue) => {
		const end = source.slice(0, issue.start).trimEnd().length;
		return [
			...itselfAway(source, issue),
			{ says: 'Close the brace before it', text: put(source, { start: end, end }, '}') },
			...placeholderAway(source, issue)
		];
	},
	'template/trailing-escape': (source) => [{ says: 'Write “\\\\”', text: `${source}\\` }],
	'template/stray-close': (source, issue) => [
		{ says: `Write “\\${issue.seen}”`, text: put(source, { start: issue.start, end: issue.start }, '\\') },
		...itselfAway(source, issue)
	],
	'template/unreachable': (source, issue) => [takeAway(source, withSign(source, issue, '??'))],
	'template/constant-optional': (source, issue) => [
		{ says: 'Take the brackets away', text: put(source, issue, source.slice(issue.start + 2, issue.end - 2)) }
	],
	'template/double-brand': placeholderAway,
	'template/idle-word': (source, issue) => [
		...(issue.seen === 'fit'
			? [{ says: 'Move it to the top', text: source.slice(issue.start, issue.end) + without(source, issue) }]
			: []),
		...itselfAway(source, issue)
	],
	'template/or-alone': placeholderAway,
	'template/prints-flag': (source, issue) => {
		const name = /[\w.:-]+/.exec(source.slice(issue.start, issue.end))?.[0] ?? '';
		const words = name.split('.').at(-1) ?? '';
		return [
			{ says: `Ask it: ${quoted(`[[{${name}?}${words}]]`)}`, text: put(source, issue, `[[{${name}?}${words}]]`) }
		];
	},
	'template/piece-circle': placeholderAway
};

/**
 * What mends an issue of a template: the first way after which less is wrong than before. Undefined where none is known. Each
 * was tried: a mend never brings an error that was not there.
 */
export function mendTemplate(source: string, issue: Issue, context: TemplateContext): TemplateMend | undefined {
	const before = countOf(checkTemplate(source, context));
	const ways = Object.hasOwn(WAYS, issue.code) ? (WAYS[issue.code] as Ways)(source, issue) : [];
	return ways.find(({ text }) => isLess(countOf(checkTemplate(text, context)), before));
}

interface Count {
	readonly errors: number;
	readonly all: number;
}
const countOf = (issues: readonly Issue[]): Count => ({
	errors: issues.filter(({ severity }) => severity === 'error').length,
	all: issues.length
});
const isLess = (now: Count, before: Count) =>
	now.errors < before.errors || (now.errors === before.errors && now.all < before.all);
