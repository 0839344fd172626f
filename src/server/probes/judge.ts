import { charsetIn, finding, hidesFromSearch, parseUrl, type Finding, type ServedHead } from '$core';
import { labelled } from '../fetching/charset';
import type { TracedFetch } from '../fetching/trace';
import type { Robots } from '../imports/web/robots';
import { directivesForAll, findInServedHead } from './served';
import { leadsOn, isPage, otherThanPage, WHY, nameOf, PLACE, type Fetched, type Looked } from './looked';
import { judgePictures, type FetchedPicture } from './pictures';

/** What is wrong with what is served, and what it costs. */
export function judge(
	address: string,
	all: readonly Looked[],
	whole: Fetched | undefined,
	robots: Robots,
	pictures: ReadonlyMap<string, FetchedPicture>
): Finding[] {
	const shut = all.filter((one) => one.shut === 'forbidden');
	const failing = all.filter((one) => one.shut === 'failing');
	const blocked: Finding[] =
		shut.length === 0
			? []
			: [
					finding('blocked-by-robots', PLACE, undefined, {
						readers: shut.map(nameOf),
						line: robots.lineOf(address, shut[0]!.habits.name)
					})
				];
	if (failing.length > 0)
		blocked.push(finding('robots-failing', PLACE, undefined, { readers: failing.map(nameOf), status: robots.status }));
	if (!whole) return blocked;
	const found: Finding[] = [];
	const { page, head } = whole;
	const stopped = all.filter(({ fetched }) => fetched?.page.end === 'other-host');
	if (stopped.length > 0)
		found.push(
			finding('redirected-elsewhere', PLACE, undefined, {
				to: stopped[0]!.fetched!.page.why ?? '',
				readers: stopped.map(nameOf)
			})
		);
	const status = page.hops.at(-1)?.status ?? 0;
	if (status === 0 || ['refused', 'unknown-name', 'reset'].includes(page.end)) {
		found.push(
			finding('unreachable', PLACE, undefined, {
				address,
				why: WHY[page.end] ? `${WHY[page.end]}${page.why ? ` (${page.why})` : ''}` : (page.why ?? page.end)
			})
		);
		return found;
	}
	found.push(...blocked);
	if (['timeout', 'short', 'bad-compression', 'loop', 'too-many-redirects'].includes(page.end))
		found.push(
			finding('broken', PLACE, undefined, { how: `${WHY[page.end] ?? page.end}${page.why ? ` (${page.why})` : ''}` })
		);
	if (status >= 300 && status < 400) {
		if (page.end === 'whole') found.push(finding('leads-nowhere', PLACE, undefined, { status }));
		return found;
	}
	if (status >= 400) {
		found.push(finding('error-page', PLACE, undefined, { status }));
		return found;
	}
	const other = otherThanPage(page);
	if (other !== undefined) {
		found.push(finding('no-page', PLACE, undefined, { is: other }));
		return found;
	}
	found.push(...failingFor(all, whole), ...judgeHeaders(page), ...judgeRefresh(all));
	if (head.asksToSignIn && head.tags.every(({ name }) => !name.startsWith('og:')))
		found.push(finding('sign-in-page', PLACE, undefined, {}));
	const title = head.tags.find(({ name }) => name === 'title')?.value ?? '';
	if (status === 200 && NOT_FOUND.test(title)) found.push(finding('not-found-served', PLACE, 'title', { title }));
	found.push(
		...judgeText(all, whole),
		...findInServedHead(
			head,
			all.map(({ reader }) => reader),
			PLACE
		),
		...judgePictures(pictures, all, head),
		...judgeHome(address, head)
	);
	const byHead = new Map<string, Looked[]>();
	for (const one of all)
		if (one.fetched && isPage(one)) {
			const key = keyOfHead(one.fetched.head);
			byHead.set(key, [...(byHead.get(key) ?? []), one]);
		}
	const groups = [...byHead.values()].sort((a, b) => a.length - b.length);
	if (groups.length > 1 && stopped.length === 0)
		found.push(finding('differs-by-reader', PLACE, undefined, { readers: groups[0]!.map(nameOf) }));
	return found;
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
	return hidesFromSearch(directivesForAll(header))
		? [finding('noindex-served', PLACE, 'robots', { value: `X-Robots-Tag: ${header.slice(0, 200)}` })]
		: [];
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

function judgeText(all: readonly Looked[], { page, head, encoding }: Fetched): Finding[] {
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
		({ habits, fetched }) => fetched && fetched.head.tags.some(({ end, isBelow }) => !isBelow && end > habits.bytes)
	);
	if (far.length > 0) {
		const least = Math.min(...far.map(({ habits }) => habits.bytes));
		const beyond = head.tags.filter(({ end, isBelow }) => !isBelow && end > least).map(({ name }) => name);
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
