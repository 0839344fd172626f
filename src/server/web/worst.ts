import {
	cardOf,
	describeMend,
	findOnPage,
	READERS,
	type Finding,
	type FindingCode,
	type Page,
	type WorstPages
} from '$core';
import { freshen } from '../jobs/freshen';
import { workingResolver } from '../heads/heads';
import type { Store } from '../store/store';

/** How many pages are shown. */
const MOST = 10;

/** The pages that would be shared worst as the site is now, and what would mend most of them. */
export async function readWorst(store: Store, name: string): Promise<WorstPages> {
	await freshen(store, name);
	const stored = store.working.sites.named(name);
	const { id } = stored;
	const resolver = workingResolver(store, stored);
	const look = (page: Page) => {
		const evaluation = resolver.evaluate(page);
		const head = resolver.headOf(evaluation);
		return { path: page.path, findings: findOnPage(page, head, evaluation), card: cardOf(READERS[0]!, head) };
	};
	const pages = store.state.worst(id, MOST).flatMap((path) => store.working.pages.at(id, path) ?? []);
	return {
		pages: store.working.pages.count(id).live,
		faulty: store.state.countFaulty(id),
		worst: pages.map(look),
		mends: store.state
			.kinds(id)
			.sort((a, b) => b.pages * b.weight - a.pages * a.weight)
			.flatMap(({ code, tag, pages: number, example }) => {
				const page = store.working.pages.byId(example);
				const found = page && look(page).findings.find((one: Finding) => one.code === code && (one.tag ?? '') === tag);
				return found ? [{ code: code as FindingCode, tag: found.tag, pages: number, mend: describeMend(found) }] : [];
			})
	};
}
