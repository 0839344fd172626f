import { charsetIn, finding, hidesFromSearch, parseUrl, type Card, type Finding, type ServedHead } from '$core';
import { labelled } from '../fetching/charset';
import type { TracedFetch } from '../fetching/trace';
import type { Robots } from '../imports/web/robots';
import { directivesFor, findInServedHead } from './served';
import { leadsOn, isPage, otherThanPage, WHY, nameOf, PLACE, type Fetched, type Looked } from './looked';
import { judgePictures, type FetchedPicture } from './pictures';

/** What is wrong with what is served, and what it costs. */
export function judge(
	address: string,
	all: readonly Looked[],
	whole: Fetched | undefined,
	robots: Robots,
	pictures: ReadonlyMap<string, FetchedPicture>,
	cards: readonly Card[]
): Finding[] {
	const shut = judgeRobots(address, all, robots);
	if (!whole) return shut;
	const { page, head } = whole;
	const elsewhere = judgeElsewhere(all);
	if (hasNoAnswer(page))
		return [...elsewhere, finding('unreachable', PLACE, undefined, { address, why: howItEnded(page) })];
	const before = [...elsewhere, ...shut, ...judgeEnd(page)];
	const noPage = judgeAnswer(page);
	if (noPage) return [...before, ...noPage];
	return [
		...before,
		...failingFor(all, whole),
		...judgeHeaders(page),
		...judgeOwnRobots(all, whole),
		...judgeRefresh(all),
		...judgeStandIns(whole),
		...judgeText(all, whole),
		...findInServedHead(
			head,
			all.map(({ reader }) => reader),
			PLACE
		),
		...judgePictures(pictures, cards, head),
		...judgeHome(address, head),
		...(elsewhere.length === 0 ? judgeFaces(all) : [])
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
			? [finding('robots-failing', PLACE, undefined, { readers: failing.map(nameOf), how: robots.failed ?? '' })]
			: [])
	];
}

/** Readers that do not follow a redirect to another host. */
function judgeElsewhere(all: readonly Looked[]): Finding[] {
	const stopped = all.filter(({ fetched }) => fetched?.page.end === 'other-host');
	const to = stopped[0]?.fetched?.page.why ?? '';
	return stopped.length > 0
		? [finding('redirected-elsewhere', PLACE, undefined, { to, readers: stopped.map(nameOf) })]
		: [];
}

const hasNoAnswer = ({ hops, end }: TracedFetch) =>
	(hops.at(-1)?.status ?? 0) === 0 || ['refused', 'unknown-name', 'reset'].includes(end);
const howItEnded = ({ end, why }: TracedFetch) => (WHY[end] ? `${WHY[end]}${why ? ` (${why})` : ''}` : (why ?? end));

/** What did not come as it should have. */
const judgeEnd = (page: TracedFetch): Finding[] =>
	['timeout', 'short', 'bad-compression', 'loop', 'too-many-redirects'].includes(page.end)
		? [finding('broken', PLACE, undefined, { how: howItEnded(page) })]
		: [];

/** What an answer is that is no page; undefined for one that is. */
function judgeAnswer(page: TracedFetch): Finding[] | undefined {
	const status = page.hops.at(-1)?.status ?? 0;
	if (status >= 400) return [finding('error-page', PLACE, undefined, { status })];
	if (status >= 300) return page.end === 'whole' ? [finding('leads-nowhere', PLACE, undefined, { status })] : [];
	const other = otherThanPage(page);
	return other === undefined ? undefined : [finding('no-page', PLACE, undefined, { is: other })];
}

/** Pages that stand in for another: where one signs in, or for what is not there. */
function judgeStandIns({ page, head }: Fetched): Finding[] {
	const found: Finding[] = [];
	if (head.asksToSignIn && head.tags.every(({ name }) => !name.startsWith('og:')))
		found.push(finding('sign-in-page', PLACE, undefined, {}));
	const title = head.tags.find(({ name }) => name === 'title')?.value ?? '';
	if (page.hops.at(-1)?.status === 200 && NOT_FOUND.test(title))
		found.push(finding('not-found-served', PLACE, 'title', { title }));
	return found;
}

/** Readers that get another head than the others. */
function judgeFaces(all: readonly Looked[]): Finding[] {
	const byHead = new Map<string, Looked[]>();
	for (const one of all)
		if (one.fetched && isPage(one)) {
			const key = keyOfHead(one.fetched.head);
			byHead.set(key, [...(byHead.get(key) ?? []), one]);
		}
	const [fewest = [], ...others] = [...byHead.values()].sort((a, b) => a.length - b.length);
	return others.length > 0 ? [finding('differs-by-reader', PLACE, undefined, { readers: fewest.map(nameOf) })] : [];
}

/** Readers that got no page where others did, by how it came out. */
function failingFor(all: readonly Looked[], whole: Fetched): Finding[] {
	const by = new Map<string, string[]>();
	for (const one of all) {
		if (!one.fetched || one.fetched === whole || isPage(one) || one.fetched.page.end === 'other-host') continue;
		const { page } = one.fetched;
		const { status = 0 } = page.hops.at(-1) ?? {};
		const how =
			page.end !== 'whole' && page.end !== 'cut'
				? (WHY[page.end] ?? page.end)
				: (otherThanPage(page) ?? `its server answers with ${status}`);
		by.set(how, [...(by.get(how) ?? []), one.reader.name]);
	}
	return [...by].map(([how, readers]) => finding('fails-for', PLACE, undefined, { readers, how }));
}

/** Readers that stay where a refresh leads on. */
function judgeRefresh(all: readonly Looked[]): Finding[] {
	const staying = all.filter(({ habits, fetched }) => !habits.refreshes && fetched && leadsOn(fetched) !== undefined);
	const [first] = staying;
	if (!first) return [];
	return [finding('leads-on', PLACE, undefined, { to: leadsOn(first.fetched!)!, readers: staying.map(nameOf) })];
}

/** What the headers of a page say to search. */
function judgeHeaders({ hops }: TracedFetch): Finding[] {
	const header = hops.at(-1)?.headers['x-robots-tag'] ?? '';
	return hidesFromSearch(directivesFor(header))
		? [finding('noindex-served', PLACE, 'robots', { value: `X-Robots-Tag: ${header.slice(0, 200)}` })]
		: [];
}

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

/** Tags by which a page says that it is the home page of its host, and is not. */
function judgeHome(address: string, { tags }: ServedHead): Finding[] {
	const own = parseUrl(address);
	if (!own || own.pathname === '/') return [];
	return tags.flatMap(({ name, value, line, isBelow }) => {
		if (isBelow || (name !== 'canonical' && name !== 'og:url')) return [];
		const named = parseUrl(value, address);
		const isHome = named?.host === own.host && named.pathname === '/' && named.search === '';
		return isHome ? [finding('names-home', PLACE, name, { tag: name, line })] : [];
	});
}

/** What a head says, as one text; made once for each head that was read. */
const keysOfHeads = new WeakMap<ServedHead, string>();
function keyOfHead(head: ServedHead): string {
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
	if (said && inMarkup && encodingOf(said) !== encodingOf(inMarkup))
		found.push(finding('wrong-charset', PLACE, undefined, { header: said, markup: inMarkup }));
	if (!said && encoding.from === 'bytes' && inMarkup === undefined && page.body.some((byte) => byte > 127))
		found.push(finding('no-charset', PLACE, undefined, {}));
	for (const { name, value, line, isBelow } of head.tags)
		if (!isBelow && value.includes('\uFFFD'))
			found.push(finding('broken-characters', PLACE, name, { tag: name, line, value: value.slice(0, 60) }));
	if (!said && encoding.from !== 'byte-order-mark' && (head.charsetAt ?? 0) > 1024)
		found.push(finding('late-charset', PLACE, undefined, {}));
	const hasCard = head.tags.some(({ name }) => /^(og:|twitter:|description$)/.test(name));
	if (!hasCard && head.scripts > 0 && head.words < 40) found.push(finding('needs-scripts', PLACE, undefined, {}));
	const far = all.filter(
		({ habits, fetched }) =>
			fetched && fetched.head.tags.some((tag) => !tag.isBelow && fetched.bytesTo(tag) > habits.bytes)
	);
	if (far.length > 0) {
		const least = Math.min(...far.map(({ habits }) => habits.bytes));
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
