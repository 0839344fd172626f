import { isDeepStrictEqual } from 'node:util';
import picomatch from 'picomatch';
import { folderForm, normaliseBase, parseUrl, readPage, settleText, type FoundTag, type Site } from '$core';
import { makeImport } from '../../edits/edit';
import { refuse } from '../../errors';
import { TracingFetcher, type TracedFetch, type Via } from '../../fetching/trace';
import { patiently } from '../../store/opening/patiently';
import type { Store } from '../../store/store';
import type { FoundPage } from '../../store/working/readIn';
import { pageOfHtml, pathUnder, READER } from '../pageOfHtml';
import { languageOfText, textOfPage } from '../spoken';
import { withoutPictures } from '../pictureNames';
import { saveContent, type Incoming } from '../saveContent';
import { Staging, type ReadPage, type StagedPage } from '../staging';
import { partTitles, plainOf, trimsOf, type TitleTrims } from '../titles';
import { readServed } from './headers';
import { readPageList, type ListedPage } from './lists';
import { AGENT_HEADER, readRobots, type Robots } from './robots';
import { readWebPictures } from './webPictures';
import { pacer } from '../../waiting';

/** What is said about reading a site from the web; kept with it for the next reading. */
interface WebSource {
	/** A page of the live site, a sitemap or a feed. */
	readonly from: string;
	/** At most so many pages are read, and pages at most so many links away from the first. */
	readonly limit: number;
	readonly depth: number;
	/** Requests a second. */
	readonly rate: number;
	/** Patterns of paths, such as `/walks/**`: all of them without any. */
	readonly include: readonly string[];
	readonly exclude: readonly string[];
	readonly trims: TitleTrims;
}

const USUAL_WEB: Omit<WebSource, 'from'> = {
	...{ limit: 5000, depth: 20, rate: 5, include: [], exclude: [] },
	trims: { parts: [], numbers: false }
};

export interface WebOptions {
	readonly site: string;
	/** The public base address; that of the site, or the origin that is read, when it is not said. */
	readonly base?: string | undefined;
	readonly source: Partial<WebSource> & Pick<WebSource, 'from'>;
	/** Hosts that may be read although they are not public, and what stands in for the site. */
	readonly allowed?: ReadonlySet<string>;
	readonly via?: Via | readonly Via[] | undefined;
	/** Bytes of a sitemap or feed that is read from a file; `from` is its name then. */
	readonly file?: Buffer;
	readonly progress?: (done: number, all: number) => void;
	readonly signal?: AbortSignal;
}

export interface WebSummary {
	readonly kind: 'sitemap' | 'feed' | 'site';
	readonly read: number;
	readonly added: number;
	readonly changed: number;
	/** Pictures that were looked at now. */
	readonly pictures: number;
	readonly skipped: readonly { readonly path: string; readonly why: string }[];
	readonly retired: readonly string[];
	/** What servers say of pages beside their markup, and a person should hear of. */
	readonly told: readonly { readonly path: string; readonly what: string }[];
	/** What was taken off the titles by itself. */
	readonly trimmed: readonly string[];
	/** Addresses that wait: the limit was reached, or it was stopped. */
	readonly waiting: number;
}

const PAGE_LIMITS = { maxBytes: 5_000_000, timeout: 30_000, redirects: 5 };
const LIST_LIMITS = { maxBytes: 52_428_800, timeout: 60_000, redirects: 5 };
/** Sitemaps that one index names, at most. */
const MOST_SITEMAPS = 500;
/** Pages that are taken from all of them together, about. */
const MOST_PAGES = 500_000;

/**
 * Reads pages from the web into a site: those of one origin from a start address on, those that a sitemap lists, or the
 * entries of a feed. Obeys robots.txt; reads again only what has changed; goes on where it was stopped. Rules stay.
 */
export async function importWeb(store: Store, options: WebOptions): Promise<WebSummary> {
	const known = store.working.sites.find(options.site);
	const before = known && store.working.sources.settings<WebSource>(known.id, 'web');
	const source: WebSource = {
		...USUAL_WEB,
		...(before?.from === options.source.from ? before : {}),
		...options.source
	};
	const start = options.file ? undefined : parseUrl(source.from);
	if (!options.file && (!start || !/^https?:$/.test(start.protocol)))
		throw refuse('from-not-whole', { from: source.from });
	const fetcher = new TracingFetcher(options.allowed, options.via);
	try {
		const first = options.file ?? (await fetchList(fetcher, source.from));
		const list = isList(first) ? await wholeList(fetcher, first, source.from) : undefined;
		const base = normaliseBase(options.base ?? known?.site.base ?? (start ? `${start.origin}/` : originOf(list)));
		if (!base) throw refuse('web-needs-base');
		const site = siteFor(store, options.site, base);
		const isFirst = before?.from !== options.source.from && options.source.trims === undefined;
		const job = { store, site, base, source, fetcher, options, isFirst };
		if (list?.kind === 'feed') return saveFeed(job, list.pages);
		return await readSite(job, list?.pages ?? [{ address: (start as URL).href }], list ? 'sitemap' : 'site');
	} finally {
		await fetcher.close();
	}
}

interface Job {
	readonly store: Store;
	readonly site: number;
	readonly base: string;
	readonly source: WebSource;
	readonly fetcher: TracingFetcher;
	readonly options: WebOptions;
	/** The site was not read from there before. */
	readonly isFirst: boolean;
}

/** The site to read into; made now if there is none, so that what is read can be kept on the way. */
function siteFor(store: Store, name: string, base: string): number {
	const fresh: Site = { name, base, languages: ['und'], separator: '·', fields: {}, rules: [] };
	if (!store.working.sites.find(name))
		makeImport(store, fresh, { origin: 'command', kind: 'import', what: { from: 'web', pages: 0 } }, ({ id }) =>
			store.working.types.ensure(id, 'page')
		);
	return store.working.sites.named(name).id;
}

async function fetchList(fetcher: TracingFetcher, address: string): Promise<Buffer> {
	const found = await fetcher.fetch(address, { ...LIST_LIMITS, headers: HEADERS });
	const status = found.hops.at(-1)?.status ?? 0;
	if (status !== 200 || found.end !== 'whole') throw refuse('web-unreadable', { address, why: whyNot(found) });
	return found.body;
}

const HEADERS = {
	'user-agent': AGENT_HEADER,
	accept: 'text/html,application/xhtml+xml,application/xml;q=0.9,*/*;q=0.5',
	'accept-encoding': 'gzip, br'
};

/** Why a fetch gave no page, in words. */
function whyNot({ hops, end, why }: TracedFetch): string {
	const status = hops.at(-1)?.status ?? 0;
	if (end === 'refused') return `it is not fetched: ${why}`;
	if (status !== 0 && (status < 200 || status >= 300)) return `its server answers with ${status}`;
	const words: Partial<Record<TracedFetch['end'], string>> = {
		'unknown-name': 'there is no such host',
		timeout: `it does not answer in time (${why})`,
		loop: `its redirects go round in a circle, back to ${why}`,
		'too-many-redirects': 'it redirects too often',
		'bad-compression': 'it is not packed as it says',
		short: 'it ends in the middle',
		cut: 'it is too large',
		reset: `the connection was broken off (${why})`
	};
	return words[end] ?? 'it is empty';
}

/** Whether bytes are an XML list rather than a page. */
const isList = (bytes: Buffer) =>
	(bytes[0] === 0x1f && bytes[1] === 0x8b) ||
	/<(urlset|sitemapindex|feed|rss|rdf:RDF)[\s>]/i.test(bytes.subarray(0, 2000).toString('latin1'));

/** A list with those that it leads to. */
async function wholeList(fetcher: TracingFetcher, bytes: Buffer, from: string) {
	const list = readPageList(bytes, from);
	if (list.kind !== 'index') return list;
	const pages: ListedPage[] = [];
	const sitemaps = new Set(list.sitemaps.map((address) => parseUrl(address, from)?.href ?? address));
	for (const address of [...sitemaps].slice(0, MOST_SITEMAPS)) {
		if (pages.length >= MOST_PAGES) break;
		const one = readPageList(await fetchList(fetcher, address), address);
		if (one.kind !== 'index') for (const page of one.pages) pages.push(page);
	}
	return { kind: 'sitemap' as const, pages };
}

const originOf = (list: { readonly pages: readonly ListedPage[] } | undefined) => {
	const origin = parseUrl(list?.pages[0]?.address ?? '')?.origin;
	return origin ? `${origin}/` : '';
};

/** What is kept of an address for the next reading. */
interface Kept {
	/** By which way of reading it was read. */
	readonly reader?: number;
	readonly page: ReadPage;
	readonly links: readonly string[];
	readonly etag?: string;
	readonly modified?: string;
	/** What its server says beside it. */
	readonly told?: readonly string[];
}

async function readSite(job: Job, listed: readonly ListedPage[], kind: 'sitemap' | 'site'): Promise<WebSummary> {
	const { store, site, base, source, fetcher, options } = job;
	const origin = parseUrl(listed[0]?.address ?? base)?.origin ?? base;
	const robots = await readRobots(fetcher, origin);
	if (robots.isUnreachable) throw refuse('robots-fails', { origin });
	const isWanted = wantedBy(job, robots);
	const { sources } = store.working;
	// What still waits is from a reading that was stopped: it is taken up again.
	const isResumed = sources.countAddresses(site).waiting > 0;
	const queue = (address: string, depth: number) => {
		const why = isWanted(address);
		if (why === undefined) sources.addAddress(site, address, depth);
	};
	store.transaction(() => {
		if (!isResumed) sources.dropAddresses(site);
		for (const { address } of listed) queue(withoutHash(address), 0);
	});
	const follows = kind === 'site';
	let done = sources.countAddresses(site).read;
	const pause = 1000 * Math.max(1 / source.rate, robots.delay ?? 0);
	const turn = pacer(pause, options.signal);
	while (done < source.limit && !options.signal?.aborted) {
		const next = sources.nextAddress(site);
		if (!next) break;
		await turn();
		const read = await readOne(job, next.address, isWanted);
		await patiently(() =>
			store.transaction(() => {
				sources.doneAddress(site, next.address, read.why ?? '');
				if (read.kept) {
					sources.saveFile(site, WEB + next.address, { size: 0, modified: 0, reading: read.kept, result: null });
					if (follows && next.depth < source.depth) for (const link of read.kept.links) queue(link, next.depth + 1);
				}
				if (read.elsewhere) queue(read.elsewhere, next.depth);
			})
		);
		if (read.kept) done++;
		options.progress?.(done, done + sources.countAddresses(site).waiting);
	}
	const isAllowed = (address: string) => !address.startsWith(`${origin}/`) || robots.allows(address);
	return save(job, kind, new Map(listed.map((page) => [withoutHash(page.address), page])), isAllowed);
}

/** What a file of the web is known by among the files that were read. */
const WEB = 'web ';

const withoutHash = (address: string) => address.split('#', 1)[0] as string;

/** Why an address is not to be read, or undefined. */
function wantedBy({ base, source }: Job, robots: Robots): (address: string) => string | undefined {
	const matcher = (pattern: string) => picomatch(pattern.startsWith('/') ? pattern : `/**/${pattern}`, { dot: true });
	const [include, exclude] = [source.include.map(matcher), source.exclude.map(matcher)];
	return (address) => {
		if (!address.startsWith(base)) return 'is another site';
		const path = `/${address.slice(base.length)}`;
		if (include.length > 0 && !include.some((fits) => fits(path))) return 'is not among what is wanted';
		if (exclude.some((fits) => fits(path))) return 'is left out';
		if (
			/\.(jpe?g|png|gif|webp|avif|svg|ico|css|m?js|json|xml|pdf|zip|gz|tar|mp[34]|webm|woff2?|ttf)$/i.test(
				address.split('?', 1)[0] as string
			)
		)
			return 'is no page';
		return robots.allows(address) ? undefined : 'robots.txt forbids it';
	};
}

interface ReadOne {
	readonly kept?: Kept;
	readonly why?: string;
	/** Where it led to. */
	readonly elsewhere?: string;
}

async function readOne(job: Job, address: string, isWanted: (address: string) => string | undefined): Promise<ReadOne> {
	const { store, site, base, fetcher, options } = job;
	const last = store.working.sources.file(site, WEB + address)?.reading as Kept | undefined;
	const before = last?.reader === READER ? last : undefined;
	const found = await fetcher.fetch(address, {
		...PAGE_LIMITS,
		...(options.signal && { signal: options.signal }),
		headers: {
			...HEADERS,
			...(before?.etag && { 'if-none-match': before.etag }),
			...(before?.modified && { 'if-modified-since': before.modified })
		}
	});
	const hop = found.hops.at(-1);
	if (hop?.status === 304 && before) return { kept: before };
	if (hop?.status !== 200 || (found.end !== 'whole' && found.end !== 'cut')) return { why: whyNot(found) };
	if (hop.address !== address && hop.address === base)
		return { why: 'leads to the home page, as addresses do that are gone: search takes it for not found' };
	if (hop.address !== address)
		return isWanted(hop.address) === undefined
			? { why: `leads on to ${hop.address}`, elsewhere: hop.address }
			: { why: `leads to ${hop.address}, which ${isWanted(hop.address)}` };
	const stated = hop.headers['content-type'];
	const type = (stated ?? 'text/html').split(';')[0]!.trim().toLowerCase();
	if (type !== 'text/html' && type !== 'application/xhtml+xml')
		return {
			why: `is ${type}, no page${looksLikeHtml(found.body) ? ', though it looks like one: readers make no card of it' : ''}`
		};
	const served = readServed(found.body, hop.headers, address, saidIn);
	const { text } = served;
	const path = pathUnder(base, address, address) as string;
	const modified = hop.headers['last-modified'];
	const moment = Date.parse(modified ?? '');
	const day = Number.isNaN(moment) ? undefined : new Date(moment).toISOString();
	const page = pageOfHtml(text, WEB + address, path, day, { address, base });
	if (typeof page === 'string') return { why: page };
	const told = [
		...served.told,
		...(stated === undefined ? ['the server does not say what it is (Content-Type)'] : []),
		...(found.end === 'cut' ? [`only its first ${PAGE_LIMITS.maxBytes / 1_000_000} MB were read`] : [])
	];
	const reading = readPage(text);
	const under = parseUrl(reading.base ?? '', address)?.href ?? address;
	const links = reading.links.flatMap((link) => {
		const url = parseUrl(link, under);
		return url ? [withoutHash(url.href)] : [];
	});
	return {
		kept: {
			reader: READER,
			page: withSaid(page, served.found),
			links: [...new Set(links)],
			...(told.length > 0 && { told }),
			...(hop.headers.etag && { etag: hop.headers.etag }),
			...(modified && { modified })
		}
	};
}

const looksLikeHtml = (body: Buffer) =>
	/<(!doctype html|html|head|title|body)\b/i.test(body.subarray(0, 2000).toString('latin1'));

/** What a page's own markup says of a tag: looked for only where its server says something of the same. */
const saidIn = (text: string) => (tag: string) =>
	readPage(text).found.find(({ name }) => name.toLowerCase() === tag)?.value;

/** A page with what its server says: robots are told both together; where it says where it stands, the page itself did not. */
function withSaid(page: ReadPage, said: readonly FoundTag[]): ReadPage {
	if (said.length === 0) return page;
	const names = new Set(said.map(({ name }) => name));
	return { ...page, found: [...(page.found ?? []).filter(({ name }) => !names.has(name.toLowerCase())), ...said] };
}

/** Puts in what was read so far; pages that are no more are set to draft once all has been looked at. */
async function save(
	job: Job,
	kind: 'sitemap' | 'site',
	listed: ReadonlyMap<string, ListedPage>,
	isAllowed: (address: string) => boolean
): Promise<WebSummary> {
	const { store, site, source, options, base } = job;
	const staging = new Staging();
	try {
		const skipped: { path: string; why: string }[] = [];
		const told: { path: string; what: string }[] = [];
		const keptAt = (address: string) => store.working.sources.file(site, WEB + address)?.reading as Kept | undefined;
		const addresses = store.working.sources.addresses(site);
		// What was read before may be there still of one that is gone.
		const isRead = new Set(addresses.filter(({ result }) => result === '').map(({ address }) => address));
		for (const { address, result } of addresses) {
			if (result !== '') {
				skipped.push({ path: address, why: result });
				continue;
			}
			const kept = keptAt(address);
			if (!kept) continue;
			const form = folderForm(address);
			const opened = form !== address && isRead.has(form) ? keptAt(form) : undefined;
			if (opened && isDeepStrictEqual(opened.page.fields, kept.page.fields)) {
				skipped.push({ path: address, why: `is ${form} again` });
				continue;
			}
			told.push(...(kept.told ?? []).map((what) => ({ path: address, what })));
			const language = kept.page.language ?? (await languageOfText(textOfPage(kept.page)));
			const said = listed.get(address);
			staging.put({ ...kept.page, ...(language && { language }), ...saidOf(said, base, address) }, true);
		}
		if (staging.paths.length === 0)
			throw refuse('web-without-pages', {
				from: source.from,
				first: skipped[0] ? ` The first: ${skipped[0].path} ${skipped[0].why}.` : ''
			});
		const pictures = await readWebPictures(job, staging.pictures, staging.paths.length, {
			...{ pause: 1000 / source.rate, headers: { ...HEADERS, accept: 'image/*' }, isAllowed, signal: options.signal }
		});
		const gone = new Set(pictures.missing.map((picture) => picture.path));
		const { waiting } = store.working.sources.countAddresses(site);
		const what = { from: 'web', pages: staging.paths.length } as const;
		const common = staging.titles.findings();
		const trims = job.isFirst ? trimsOf(plainOf(common, staging.titles.titles)) : source.trims;
		const { taken } = partTitles(common, trims);
		const pages = staging.pages(trims);
		const result = saveContent(store, {
			...{ name: options.site, origin: 'command', what, as: 'web' },
			*prepare(stored) {
				const known = [...new Set([...stored.site.languages, ...staging.spoken()])].filter(
					(tag, _, all) => tag !== 'und' || all.length === 1
				);
				if (known.some((tag) => !stored.site.languages.includes(tag)))
					store.working.sites.save({ ...stored.site, languages: known });
				store.pictures.save(site, pictures.known);
				yield;
			},
			pages: comingIn(pages, gone),
			finish: () => store.working.sources.saveSettings(site, 'web', { ...source, trims }),
			...(waiting === 0 && { present: new Set(staging.paths) })
		});
		return {
			...{ kind, read: staging.paths.length, ...result, pictures: pictures.known.length },
			...{ skipped: [...skipped, ...pictures.missing], told, waiting },
			trimmed: job.isFirst ? taken.parts.map(({ text }) => text.trim()) : []
		};
	} finally {
		staging.close();
	}
}

function* comingIn(pages: Iterable<StagedPage>, gone: ReadonlySet<string>): Generator<Incoming> {
	for (const { page } of pages) yield { page: withoutPictures(page, gone) };
}

/** What a sitemap says of a page beside its address. */
function saidOf(
	listed: ListedPage | undefined,
	base: string,
	address: string
): Pick<FoundPage, 'modified' | 'alternates'> {
	const versions = Object.entries(listed?.versions ?? {}).flatMap(([tag, to]) => {
		const path = pathUnder(base, to, address);
		return path && path !== pathUnder(base, address, address) ? [[tag, path] as const] : [];
	});
	return {
		...(listed?.modified && { modified: listed.modified }),
		...(versions.length > 0 && { alternates: Object.fromEntries(versions) })
	};
}

/** The entries of a feed as pages: what a feed says of them is all that is read. */
function saveFeed({ store, base, source, options }: Job, entries: readonly ListedPage[]): WebSummary {
	const skipped: { path: string; why: string }[] = [];
	const pages: FoundPage[] = [];
	for (const entry of entries) {
		const path = pathUnder(base, entry.address, source.from.startsWith('http') ? source.from : base);
		if (!path?.startsWith('/')) skipped.push({ path: entry.address, why: `is no address under ${base}` });
		else pages.push(pageOfEntry(entry, path, base));
	}
	if (pages.length === 0) throw refuse('list-elsewhere', { entries: entries.length, from: source.from, base });
	const what = { from: 'feed', pages: pages.length } as const;
	const result = saveContent(store, {
		...{ name: options.site, origin: 'command', what, as: null },
		pages: pages.map((page) => ({ page, columns: Object.keys(page.fields) }))
	});
	return { kind: 'feed', read: pages.length, ...result, pictures: 0, skipped, told: [], trimmed: [], waiting: 0 };
}

function pageOfEntry(entry: ListedPage, path: string, base: string): FoundPage {
	const text = (html: string | undefined) =>
		html === undefined
			? ''
			: settleText(
					readPage(html).body ||
						html
							.split('<')
							.map((piece, at) => (at === 0 ? piece : piece.slice(piece.indexOf('>') + 1)))
							.join(' ')
				);
	const pictures = (entry.pictures ?? []).flatMap((src) => pathUnder(base, src, base + path.slice(1)) ?? []);
	const summary = text(entry.summary);
	return {
		path,
		type: undefined,
		...(entry.modified && { modified: entry.modified }),
		...(entry.language && { language: entry.language }),
		fields: {
			...(entry.title && { title: entry.title }),
			...(summary && { summary }),
			...(entry.body && { body: entry.body }),
			...(entry.author && { author: { name: entry.author } }),
			...(entry.published && { published: entry.published }),
			...(entry.tags && { tags: entry.tags }),
			...(pictures[0] && { picture: { src: pictures[0] } })
		}
	};
}
