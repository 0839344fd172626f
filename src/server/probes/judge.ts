import {
	directivesFor,
	charsetIn,
	finding,
	hidesFromSearch,
	isLocalAddress,
	parseUrl,
	type Card,
	type Finding,
	type NoPage,
	type ServedHead
} from '$core';
import { labelled } from '../fetching/charset';
import type { TracedFetch } from '../fetching/trace';
import type { Robots } from '../imports/web/robots';
import { findInEncoding, findInServedHead, keptOut, keptOutBy, needsScripts } from './served';
import {
	leadsOn,
	isBrokenOff,
	isComplete,
	isPage,
	otherThanPage,
	endedAs,
	nameOf,
	PLACE,
	type Fetched,
	type Looked
} from './looked';
import { judgePictures, type FetchedPicture } from './pictures';

/** What is wrong with what is served, and what it costs. */
export function judge(
	address: string,
	all: readonly Looked[],
	whole: Fetched | undefined,
	robots: Robots,
	pictures: ReadonlyMap<string, FetchedPicture>,
	cards: readonly Card[],
	/** Another address of the site at which a page that scripts write has the same head. */
	sameAt: string | undefined,
	/** Readers that were given another page than others, twice. */
	apart: readonly Looked[]
): Finding[] {
	const shut = judgeRobots(address, all, robots);
	if (!whole) return shut;
	const { page, head } = whole;
	const elsewhere = judgeElsewhere(all);
	if (hasNoAnswer(page)) return [...elsewhere, ...shut, unreachable(address, page)];
	const before = [...elsewhere, ...shut, ...judgeEnds(all, whole)];
	const noPage = judgeAnswer(page);
	if (noPage || !all.some(isPage)) return [...before, ...(noPage ?? []), ...failingFor(all, whole)];
	return [
		...before,
		...failingFor(all, whole),
		...judgeSearch(page, head),
		...judgeOwnRobots(all, whole),
		...judgeRefresh(all),
		...judgeLength(page),
		...judgeStandIns(whole),
		...judgeShell(head, sameAt),
		...judgeText(all, whole),
		...findInServedHead(
			head,
			all.map(({ reader }) => reader),
			PLACE
		),
		...judgePictures(pictures, cards, head),
		...judgeOwn(address, whole.at, head),
		...(apart.length > 0 ? [finding('differs-by-reader', PLACE, undefined, { readers: apart.map(nameOf) })] : [])
	];
}

/** Readers that did not ask, since robots.txt shuts them out or fails. */
function judgeRobots(address: string, all: readonly Looked[], robots: Robots): Finding[] {
	const [shut, failing] = (['forbidden', 'failing'] as const).map((why) => all.filter((one) => one.shut === why)) as [
		Looked[],
		Looked[]
	];
	const line = shut[0] && robots.lineOf(address, shut[0].habits.name);
	return [
		...(shut.length > 0 ? [finding('blocked-by-robots', PLACE, undefined, { readers: shut.map(nameOf), line })] : []),
		...(failing.length > 0
			? [
					finding('robots-failing', PLACE, undefined, {
						readers: failing.map(nameOf),
						how: robots.failed ?? { is: 'no-answer' }
					})
				]
			: [])
	];
}

/** Readers that do not follow where it leads: to another host, or to what robots.txt keeps them from. */
function judgeElsewhere(all: readonly Looked[]): Finding[] {
	const stopped = (by: TracedFetch['end']) => all.filter(({ fetched }) => fetched?.page.end === by);
	return (
		[
			['other-host', 'redirected-elsewhere'],
			['shut', 'leads-to-shut']
		] as const
	).flatMap(([end, code]) => {
		const readers = stopped(end);
		const to = readers[0]?.fetched?.page.why ?? '';
		return readers.length > 0 ? [finding(code, PLACE, undefined, { to, readers: readers.map(nameOf) })] : [];
	});
}

const hasNoAnswer = ({ hops, end }: TracedFetch) =>
	(hops.at(-1)?.status ?? 0) === 0 ||
	['refused', 'unknown-name', 'no-connection', 'certificate', 'reset', 'malformed'].includes(end);
const unreachable = (address: string, page: TracedFetch) =>
	finding('unreachable', PLACE, undefined, {
		...{ address, why: endedAs(page) },
		isInner: page.end === 'refused' && /leads to (?:this machine|a private network)/.test(page.why ?? '')
	});

/** What did not come as it should have: of readers that got half of it, by how. */
function judgeEnds(all: readonly Looked[], whole: Fetched): Finding[] {
	const by = new Reasons();
	for (const { fetched, reader } of all) {
		if (!fetched || isComplete(fetched.page) || fetched.page.end === 'other-host' || fetched.page.end === 'shut')
			continue;
		// Those that got nothing where others got the page are told as that.
		if (fetched !== whole && isComplete(whole.page) && !isBrokenOff(fetched.page)) continue;
		by.add(endedAs(fetched.page), reader.name);
	}
	const asked = all.filter(({ fetched }) => fetched).length;
	return by.all.map(({ how, readers }) =>
		finding('broken', PLACE, undefined, { how, readers: readers.length === asked ? [] : readers })
	);
}

/** What an answer is that is no page; undefined for one that is. */
function judgeAnswer(page: TracedFetch): Finding[] | undefined {
	const status = page.hops.at(-1)?.status ?? 0;
	if (status >= 400) return [finding('error-page', PLACE, undefined, { status })];
	// 1xx at the end is no answer at all.
	if (status < 200) return [finding('leads-nowhere', PLACE, undefined, { status })];
	if (status >= 300) return page.end === 'whole' ? [finding('leads-nowhere', PLACE, undefined, { status })] : [];
	const other = otherThanPage(page);
	return other === undefined ? undefined : [finding('no-page', PLACE, undefined, { is: other })];
}

/** A page that goes on beyond what is read for the most patient reader. */
const judgeLength = ({ end, body, packed }: TracedFetch): Finding[] =>
	end === 'cut' ? [finding('endless-page', PLACE, undefined, { bytes: body.length, packed: packed?.length })] : [];

/** Pages that stand in for another: where one signs in, or for what is not there. */
function judgeStandIns({ page, head, at }: Fetched): Finding[] {
	const found: Finding[] = [];
	// A page that shares as something may have a field to sign in; one that it leads to instead has not.
	const isSentAway =
		page.hops.length > 1 && /\/(?:log|sign)-?in\b|\/auth\b|[?&](?:next|return_?to|redirect)=/i.test(at);
	if (head.asksToSignIn && (isSentAway || head.tags.every(({ name }) => !name.startsWith('og:'))))
		found.push(finding('sign-in-page', PLACE, undefined, {}));
	const said = (name: string) => head.tags.find((tag) => tag.name === name)?.value;
	const missing = [said('title'), said('og:title'), head.more.get('h1')].find((text) => NOT_FOUND.test(text ?? ''));
	if (page.hops.at(-1)?.status === 200 && missing !== undefined)
		found.push(finding('not-found-served', PLACE, 'title', { title: missing.slice(0, 200) }));
	return found;
}

/** Pages that scripts write: what readers see of them. */
function judgeShell(head: ServedHead, sameAt: string | undefined): Finding[] {
	if (needsScripts(head)) return [finding('needs-scripts', PLACE, undefined, {})];
	if (sameAt === undefined) return [];
	const title =
		['og:title', 'title'].map((name) => head.tags.find((tag) => tag.name === name)?.value).find(Boolean) ?? '';
	return [finding('same-everywhere', PLACE, undefined, { title: title.slice(0, 200), other: sameAt })];
}

/**
 * Readers that come to the same address and get different heads, by the head: most of them first. One group alone: all get
 * the same.
 */
export function facesOf(all: readonly Looked[]): Looked[][] {
	const pages = all.flatMap((one) => (one.fetched && isPage(one) ? [{ one, fetched: one.fetched }] : []));
	const first = pages[0]?.fetched;
	// The same bytes are read once, so nearly always all have the same head.
	if (pages.every(({ fetched: { at, head } }) => at === first?.at && head === first.head))
		return first ? [pages.map(({ one }) => one)] : [];
	const byHead = new Map<string, Looked[]>();
	for (const { one, fetched } of pages) {
		const key = `${fetched.at}\n${keyOfHead(fetched.head)}`;
		byHead.set(key, [...(byHead.get(key) ?? []), one]);
	}
	const most = [...byHead.values()].sort((a, b) => b.length - a.length);
	const at = most[0]?.[0]?.fetched?.at;
	return most.filter(([one]) => one?.fetched?.at === at);
}

/** Readers that got no page where others did, by how it came out; half a page is told as broken. */
function failingFor(all: readonly Looked[], whole: Fetched): Finding[] {
	const by = new Reasons();
	const known = keyOf(whyNoPage(whole.page));
	for (const one of all) {
		if (!one.fetched || one.fetched === whole || isPage(one) || isBrokenOff(one.fetched.page)) continue;
		const { page } = one.fetched;
		const how = whyNoPage(page);
		if (page.end === 'other-host' || page.end === 'shut' || keyOf(how) === known) continue;
		by.add(how, one.reader.name);
	}
	return by.all.map(({ how, readers }) => finding('fails-for', PLACE, undefined, { readers, how }));
}

/** Why what came is no page. */
function whyNoPage(page: TracedFetch): NoPage {
	if (!isComplete(page)) return endedAs(page);
	const { status = 0 } = page.hops.at(-1) ?? {};
	const other = status >= 200 && status < 300 ? otherThanPage(page) : undefined;
	if (other !== undefined) return { is: 'other', what: other };
	return { is: 'answers', status, ...(status >= 300 && status < 400 && { isUnfollowed: true }) };
}

const keyOf = (how: NoPage) => JSON.stringify(how);

/** Readers by what came of their fetch. */
class Reasons {
	private readonly by = new Map<string, { readonly how: NoPage; readonly readers: string[] }>();
	add(how: NoPage, reader: string): void {
		const known = this.by.get(keyOf(how)) ?? { how, readers: [] };
		known.readers.push(reader);
		this.by.set(keyOf(how), known);
	}
	get all() {
		return [...this.by.values()];
	}
}

/** Readers that stay where a refresh leads on. */
function judgeRefresh(all: readonly Looked[]): Finding[] {
	const staying = all.filter(({ habits, fetched }) => !habits.refreshes && fetched && leadsOn(fetched) !== undefined);
	const [first] = staying;
	if (!first) return [];
	return [finding('leads-on', PLACE, undefined, { to: leadsOn(first.fetched!)!, readers: staying.map(nameOf) })];
}

/** What a page says to search: in its headers, and of pictures anywhere. */
function judgeSearch({ hops }: TracedFetch, { tags }: ServedHead): Finding[] {
	const header = hops.at(-1)?.headers['x-robots-tag'] ?? '';
	const inMarkup = tags.find(({ name, isBelow }) => name === 'robots' && !isBelow)?.value ?? '';
	const said = `X-Robots-Tag: ${header.slice(0, 200)}`;
	const found: Finding[] = [];
	if (keptOutBy(header)) found.push(finding('noindex-served', PLACE, 'robots', { value: said }));
	const withoutPicture = [inMarkup, directivesFor(header)].map((text) => NO_PREVIEW.test(text.slice(0, 2000)));
	if (withoutPicture.includes(true) && !keptOut(inMarkup) && found.length === 0)
		found.push(
			finding('no-picture-preview', PLACE, 'robots', { value: withoutPicture[0] ? inMarkup.slice(0, 200) : said })
		);
	return found;
}
const NO_PREVIEW = /(?:^|,)\s*max-image-preview\s*:\s*none\s*(?:,|$)/i;

/** Readers that are told by their own name not to list the page: by a `meta` of that name, or in the header. */
function judgeOwnRobots(all: readonly Looked[], { page, head }: Fetched): Finding[] {
	const header = page.hops.at(-1)?.headers['x-robots-tag'] ?? '';
	const told = all.filter(({ habits }) =>
		[
			directivesFor(header, habits.name),
			...head.tags
				.filter(({ name: of }) => of === habits.name || of === `meta:${habits.name}`)
				.map(({ value }) => value)
		].some(hidesFromSearch)
	);
	return told.length > 0 ? [finding('noindex-for', PLACE, undefined, { readers: told.map(nameOf) })] : [];
}

/** Tags by which a page names itself, and names the home page of its host, itself without TLS, or what stands on another host. */
function judgeOwn(asked: string, address: string, { tags }: ServedHead): Finding[] {
	const [own, shared] = [parseUrl(address), parseUrl(asked)];
	if (!own || !shared) return [];
	return tags.flatMap(({ name, value, line, isBelow }) => {
		if (isBelow || (name !== 'canonical' && name !== 'og:url')) return [];
		const named = parseUrl(value, address);
		// What is no web address, or an address of one's own machine, is told otherwise.
		if (!named || !/^https?:$/.test(named.protocol) || isLocalAddress(named.href)) return [];
		// What was shared leads on to another host: either may be named.
		if (siteOf(named) !== siteOf(own) && siteOf(named) !== siteOf(shared))
			return [finding('names-elsewhere', PLACE, name, { tag: name, line, to: named.href })];
		if (own.protocol === 'https:' && named.protocol === 'http:')
			return [finding('insecure-address', PLACE, name, { tag: name, line, value: named.href })];
		const isHome = own.pathname !== '/' && named.pathname === '/' && named.search === '';
		return isHome ? [finding('names-home', PLACE, name, { tag: name, line })] : [];
	});
}
/** With `www.` and without it is one site. */
const siteOf = ({ host }: URL) => host.replace(/^www\./, '');

/** What a head says, as one text; made once for each head that was read. */
const keysOfHeads = new WeakMap<ServedHead, string>();
export function keyOfHead(head: ServedHead): string {
	const key = keysOfHeads.get(head) ?? head.tags.map(({ name, value }) => `${name}=${value}`).join('\n');
	keysOfHeads.set(head, key);
	return key;
}

/** Titles of pages that stand in for what is not there, in the languages that they are seen in most. */
const NOT_FOUND =
	/^\W*(404\b|error 404|(the )?page (was )?(not|cannot be) found|not found\b|seite nicht gefunden|page introuvable|página no encontrada)|[|·–—-]\s*(404|(page )?not found)\W*$|\b(could|can)(not| not|n[’']t) find (that|the|this) page\b/i;

/** The encoding that a label means (Encoding standard, section 4.2): `utf8` is `utf-8`; a label that is none, itself. */
const encodingOf = (label: string) => labelled(label) ?? label.toLowerCase();

function judgeText(all: readonly Looked[], { page, head, encoding, bytesTo }: Fetched): Finding[] {
	const found: Finding[] = [];
	const said = charsetIn(page.hops.at(-1)?.headers['content-type'] ?? '');
	const inMarkup = head.charset;
	// Where the page begins with the mark of an encoding, that is what it is in.
	const inPage = encoding.from === 'byte-order-mark' ? encoding.encoding : inMarkup;
	if (said && labelled(said) === undefined)
		found.push(finding('unknown-charset', PLACE, undefined, { label: said.slice(0, 40) }));
	else if (said && inPage && encodingOf(said) !== encodingOf(inPage))
		found.push(finding('wrong-charset', PLACE, undefined, { header: said, markup: inPage }));
	found.push(...findInEncoding(head, { said, from: encoding.from, body: page.body }, PLACE));
	const far = all.filter(
		({ reads, fetched }) => fetched && fetched.head.tags.some((tag) => !tag.isBelow && fetched.bytesTo(tag) > reads)
	);
	if (far.length > 0) {
		const least = Math.min(...far.map(({ reads }) => reads));
		const beyond = head.tags.filter((tag) => !tag.isBelow && bytesTo(tag) > least).map(({ name }) => name);
		found.push(
			finding('beyond-reading', PLACE, beyond[0], {
				tags: [...new Set(beyond)].slice(0, 5),
				readers: far.map(nameOf),
				bytes: least
			})
		);
	}
	return found;
}
