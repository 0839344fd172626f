import type { Finding } from '../findings/finding';
import { findInTag, valueIn } from '../findings/pages';
import { findHard, type HardKind } from '../findings/surveys';
import type { Page } from '../model';
import { Resolver, type SiteModel } from '../resolve/resolver';
import { piecesFor } from '../resolve/words';
import { compileTemplate } from '../template/compile';
import { editModel, editPage, type Edit } from './reach';

/** What a tag of one page would come to with an edit. */
export interface TriedValue {
	readonly value: string;
	readonly findings: readonly Finding[];
}

/** A page that is hard on templates, with what each of the edits would make of it. */
export interface TriedPage {
	readonly path: string;
	/** Why it is hard; nothing of live data that is tried by its path. */
	readonly kinds: readonly HardKind[];
	readonly values: readonly TriedValue[];
	/** Why its record could not be had. */
	readonly away?: string;
}

/** Edits of one tag held against each other on the hard pages, among some, and on all of `live`; none is kept. */
export function tryEdits(
	model: SiteModel,
	pages: readonly Page[],
	edits: readonly Edit[],
	now: string,
	live: readonly Page[] = []
): TriedPage[] {
	const byPath = new Map([...pages, ...live].map((page) => [page.path, page]));
	const kinds = new Map<string, HardKind[]>(live.map(({ path }) => [path, []]));
	for (const { kind, path } of findHard(model, pages, now)) kinds.set(path, [...(kinds.get(path) ?? []), kind]);
	const ways = edits.map((edit) => ({ edit, resolver: new Resolver(editModel(model, edit), now) }));
	return [...kinds].map(([path, why]) => {
		const page = byPath.get(path)!;
		const values = ways.map(({ edit, resolver }) => {
			const then = editPage(page, edit);
			const evaluation = resolver.evaluate(then);
			const head = resolver.headOf(evaluation);
			return { value: valueIn(head, edit.tag), findings: findInTag(edit.tag, then, head, evaluation) };
		});
		return { path, kinds: why, values };
	});
}

/** On how many pages the stretches of a template that says how long it may be give way. */
export interface GivenWay {
	/** Pages whose tag comes from the template. */
	readonly pages: number;
	/** By their places in the template; those that never give way are not among them. */
	readonly stretches: readonly { readonly start: number; readonly end: number; readonly pages: number }[];
}

/** Counts it for the template of an edit, among some pages; `progress` is told how many were looked at. */
export function countGivenWay(
	model: SiteModel,
	pages: Iterable<Page>,
	edit: Edit,
	now: string,
	progress?: (pages: number) => void
): GivenWay {
	if (edit.body?.kind !== 'template') return { pages: 0, stretches: [] };
	const { template } = edit.body;
	const edited = editModel(model, edit);
	const resolver = new Resolver(edited, now);
	const type = edit.place.layer === 'type' ? edit.place.name : undefined;
	const compiled = new Map(
		[undefined, ...edited.types].map((one) => [one?.name, compileTemplate(template, piecesFor(edited.site, one))])
	);
	const counts = new Map<string, { start: number; end: number; pages: number }>();
	let [seen, all] = [0, 0];
	for (const page of pages) {
		if (++seen % 500 === 0) progress?.(seen);
		if (type !== undefined && page.type !== type) continue;
		const evaluation = resolver.evaluate(editPage(page, edit));
		const winner = evaluation.winnerOf(edit.tag);
		const isIts =
			winner?.layer === edit.place.layer && winner.rule?.kind === 'template' && winner.rule.template === template;
		if (!isIts) continue;
		all++;
		// At the site only its own pieces are known; a type's are known at the type and its pages.
		const own = compiled.get(edited.types.some(({ name }) => name === page.type) ? page.type : undefined)!;
		for (const { start, end } of own.gone(evaluation)) {
			const known = counts.get(`${start}-${end}`);
			if (known) known.pages++;
			else counts.set(`${start}-${end}`, { start, end, pages: 1 });
		}
	}
	return { pages: all, stretches: [...counts.values()].sort((a, b) => a.start - b.start || b.end - a.end) };
}

/** The same, of several parts of the pages. */
export function joinGivenWay(parts: readonly GivenWay[]): GivenWay {
	const counts = new Map<string, GivenWay['stretches'][number]>();
	for (const { start, end, pages } of parts.flatMap(({ stretches }) => stretches)) {
		const known = counts.get(`${start}-${end}`);
		counts.set(`${start}-${end}`, { start, end, pages: pages + (known?.pages ?? 0) });
	}
	return {
		pages: parts.reduce((sum, part) => sum + part.pages, 0),
		stretches: [...counts.values()].sort((a, b) => a.start - b.start || b.end - a.end)
	};
}
