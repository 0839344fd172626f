import { finding, isLocalAddress, parseUrl, type Finding, type ServedHead, type ServedTag } from '$core';
import { decoded, fileOfPath, formsOf } from '../files/folder';

/** A finding in a file, with the line that it is about, from 1. */
export interface FileFinding {
	readonly file: string;
	readonly line: number | undefined;
	readonly column: number | undefined;
	readonly finding: Finding;
}

/** What a page of a folder says of itself, for comparing it with the others. */
export interface Said {
	readonly file: string;
	readonly path: string;
	readonly title: string;
	readonly description: string;
	readonly picture: string;
	readonly tags: readonly ServedTag[];
	readonly lineOf: (tag: string) => number | undefined;
}

export function saidBy(file: string, path: string, { tags }: ServedHead): Said {
	const own = tags.filter(({ isBelow }) => !isBelow);
	const value = (name: string) => own.find((one) => one.name === name)?.value ?? '';
	return {
		...{ file, path, title: value('title'), description: value('description'), picture: value('og:image') },
		// Only what leads somewhere is compared: of a large site, that is little.
		tags: own.filter(({ tag }) => tag?.kind === 'address' || tag?.kind === 'picture'),
		lineOf: (name) => own.find((one) => one.name === name)?.line
	};
}

/** The pages of a folder as those who look for where links lead see them. */
interface Site {
	/** What stands before the paths of its files, such as `https://s.example/docs/`, where most of them agree. */
	readonly base: string | undefined;
	readonly pages: ReadonlyMap<string, Said>;
	readonly top: string;
	/** Pictures of cards stand in the folder, or may: where none of several does, they are served from elsewhere. */
	readonly hasPictures: boolean;
}

/** Links of heads that lead nowhere in the folder, to another page than they should, or out of the site. */
export function findLinks(all: readonly Said[], top: string): FileFinding[] {
	const pages = new Map(all.flatMap((one) => formsOf(one.path).map((path) => [path, one] as const)));
	const known = { base: baseOf(all), pages, top };
	const site: Site = { ...known, hasPictures: hasPictures(all, known) };
	return all.flatMap((one) => findInPage(one, site).map((found) => ({ file: one.file, column: undefined, ...found })));
}

type Placed = Pick<FileFinding, 'line' | 'finding'>;

function findInPage(one: Said, site: Site): Placed[] {
	return [
		...['canonical', 'og:url'].flatMap((name) => findInOwn(one, name, site)),
		...findDifferent(one, site),
		...one.tags.flatMap((tag) => findInVersion(one, tag, site)),
		...one.tags.flatMap((tag) => findInFile(one, tag, site))
	];
}

const linkOf = ({ tags }: Said, name: string) => tags.find((one) => one.name === name && one.value !== '');

/** What is wrong with an address by which a page names itself. */
function findInOwn(one: Said, name: string, site: Site): Placed[] {
	const link = linkOf(one, name);
	if (!link) return [];
	const { value, line } = link;
	const target = { of: 'page', path: one.path } as const;
	const path = pathIn(site, one, value);
	if (path === undefined) {
		const host = parseUrl(value)?.host;
		const own = site.base === undefined ? undefined : parseUrl(site.base)?.host;
		if (host !== undefined && host === own && value.startsWith('http:') && site.base!.startsWith('https:'))
			return [{ line, finding: finding('insecure-address', target, name, { tag: name, line, value }) }];
		return host === undefined || own === undefined || host === own || isLocalAddress(value)
			? []
			: [{ line, finding: finding('names-elsewhere', target, name, { tag: name, line, to: value }) }];
	}
	const other = site.pages.get(plain(path));
	if (other === one) return [];
	if (!other)
		return [
			{
				line,
				finding:
					name === 'canonical'
						? finding('canonical-nowhere', target, name, {
								...{ path: one.path, to: value, why: { is: 'no-page', of: 'folder' } }
							})
						: finding('file-missing', target, name, { tag: name, line, value })
			}
		];
	// A page that is told twice names the one that stands for both.
	if (isSame(one, other)) return [];
	return [
		{
			line,
			finding:
				other.path === '/'
					? finding('names-home', target, name, { tag: name, line })
					: finding('names-other', target, name, { tag: name, line, to: value })
		}
	];
}

const isSame = (one: Said, other: Said) =>
	one.title !== '' && one.title === other.title && one.description === other.description;

/** Two addresses that both name the page, and are not one. */
function findDifferent(one: Said, site: Site): Placed[] {
	const [canonical, own] = [linkOf(one, 'canonical'), linkOf(one, 'og:url')];
	if (!canonical || !own || canonical.value === own.value) return [];
	const paths = [canonical, own].map(({ value }) => pathIn(site, one, value));
	if (paths.some((path) => path === undefined || site.pages.get(plain(path)) !== one)) return [];
	const data = { line: own.line, canonical: canonical.value, other: own.value };
	return [{ line: own.line, finding: finding('names-differ', { of: 'page', path: one.path }, 'og:url', data) }];
}

/** A version in another language that leads nowhere, or does not lead back. */
function findInVersion(one: Said, { name, value: to, attributes, line }: ServedTag, site: Site): Placed[] {
	const language = attributes.hreflang;
	if (name !== 'alternate' || !language) return [];
	const path = pathIn(site, one, to);
	const other = path === undefined ? undefined : site.pages.get(plain(path));
	if (path === undefined || other === one) return [];
	const target = { of: 'page', path: one.path } as const;
	const data = { path: one.path, language, to };
	if (!other)
		return [
			{
				line,
				finding: finding('version-nowhere', target, 'hreflang', { ...data, why: { is: 'no-page', of: 'folder' } })
			}
		];
	// What stands for all other languages need not name each of them.
	if (language.toLowerCase() === 'x-default') return [];
	const own = formsOf(one.path);
	const isBack = other.tags.some(
		(back) => back.attributes.hreflang !== undefined && own.includes(plain(pathIn(site, other, back.value) ?? ''))
	);
	return isBack ? [] : [{ line, finding: finding('version-one-way', target, 'hreflang', data) }];
}

/** Links to files beside the pages: pictures, icons, manifests, feeds, films. */
const TO_FILES =
	/^(?:og:image|og:image:secure_url|twitter:image|icon|apple-touch-icon|manifest|feed:\w+|og:video|og:audio|twitter:player:stream)$/;

/** Pictures of cards; so many of which none is there are not in the folder for a reason. */
const CARD_PICTURES = /^(?:og:image|og:image:secure_url|twitter:image)$/;
const MANY_PICTURES = 4;

function hasPictures(all: readonly Said[], site: Omit<Site, 'hasPictures'>): boolean {
	const named = new Set<string>();
	for (const one of all)
		for (const { name, value } of one.tags) {
			const path = CARD_PICTURES.test(name) && value !== '' ? pathIn(site, one, value) : undefined;
			if (path === undefined) continue;
			if (isThere(site.top, path)) return true;
			named.add(path);
		}
	return named.size < MANY_PICTURES;
}

const isThere = (top: string, path: string) => fileOfPath(top, path.split(/[?#]/, 1)[0]!) !== undefined;

/** Files that heads name and that are not in the folder; and addresses without TLS beside a site that has it. */
function findInFile(one: Said, { name, value, line }: ServedTag, site: Site): Placed[] {
	if (!TO_FILES.test(name) || value === '') return [];
	const target = { of: 'page', path: one.path } as const;
	const found: Placed[] = [];
	const secure = site.base?.startsWith('https:') === true && value.startsWith('http://');
	if (secure) found.push({ line, finding: finding('insecure-address', target, name, { tag: name, line, value }) });
	const path = pathIn(site, one, secure ? value.replace('http:', 'https:') : value);
	const isKnown = site.hasPictures || !CARD_PICTURES.test(name);
	// A folder is no file, whatever is served for it.
	const isFolder = path?.split(/[?#]/, 1)[0]?.endsWith('/') === true;
	if (path !== undefined && isKnown && (isFolder || !isThere(site.top, path)))
		found.push({ line, finding: finding('file-missing', target, name, { tag: name, line, value }) });
	return found;
}

/** The path in the folder that an address means; undefined for one that is elsewhere, or of which it cannot be told. */
function pathIn({ base, pages }: Pick<Site, 'base' | 'pages'>, one: Said, address: string): string | undefined {
	const isWhole = /^[a-z][a-z0-9+.-]*:/i.test(address) || address.startsWith('//');
	if (base === undefined) {
		// From the root of a site: of the folder, where its home page stands there.
		if (isWhole || (address.startsWith('/') && !pages.has('/'))) return undefined;
		return within(parseUrl(address, `https://folder.invalid${one.path}`), 'https://folder.invalid/', one, address);
	}
	return within(parseUrl(address, base + one.path.slice(1)), base, one, address);
}

function within(url: URL | undefined, base: string, { path }: Said, address: string): string | undefined {
	if (!url?.href.startsWith(base)) return undefined;
	// What climbs out of the folder is not known here.
	const climbs = address.split('/').filter((part) => part === '..').length;
	return climbs >= path.split('/').length - 1 ? undefined : `/${url.href.slice(base.length)}`;
}

const plain = (path: string) => decoded(path.split(/[?#]/, 1)[0] as string);

/**
 * What most pages that name themselves by a whole address write before the path of their file. Of those none of which ends
 * in it, the origin that most have.
 */
function baseOf(all: readonly Said[]): string | undefined {
	const [counts, origins] = [new Map<string, number>(), new Map<string, number>()];
	const count = (of: Map<string, number>, key: string) => of.set(key, (of.get(key) ?? 0) + 1);
	for (const one of all)
		for (const name of ['canonical', 'og:url']) {
			const url = parseUrl(linkOf(one, name)?.value ?? '');
			if (!url || !/^https?:$/.test(url.protocol)) continue;
			count(origins, `${url.origin}/`);
			const path = decoded(url.pathname);
			const form = formsOf(one.path).find((own) => path.endsWith(own));
			if (form !== undefined) count(counts, `${url.origin}${url.pathname.slice(0, path.length - form.length)}/`);
		}
	return mostOf(counts) ?? mostOf(origins);
}

const mostOf = (counts: ReadonlyMap<string, number>): string | undefined =>
	[...counts].sort((a, b) => b[1] - a[1])[0]?.[0];
