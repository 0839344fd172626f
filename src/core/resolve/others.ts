import { ownOf } from '../own';
import { publicIn } from '../public';
import type { ContentType, Page, Site } from '../model';
import { isEmpty, isList, ownValue, partOf, toText, type Value } from '../template/values';
import type { AddressBook } from './address';
import { inLanguage, languageOf } from './language';
import { LoopWatch } from './loops';
import { saidOf } from './words';

/** The pages of a site, as one of them can ask for others. */
export interface SitePages {
	/** The page at a path. */
	at(path: string): Page | undefined;
	/** Where a former path leads. */
	leads(path: string): string | undefined;
	/** The paths directly below a folder (with the slash at its end), in their order, the first so many. */
	below(folder: string, limit: number): readonly string[];
}

/** The same of a list of pages, and of former paths with those that they lead to. */
export function pagesIn(pages: readonly Page[], moved: Readonly<Record<string, string>> = {}): SitePages {
	const byPath = new Map(pages.map((page) => [page.path, page]));
	let byFolder: ReadonlyMap<string, readonly string[]> | undefined;
	return {
		at: (path) => byPath.get(path),
		leads: (path) => ownOf(moved, path),
		below: (folder, limit) => (byFolder ??= foldersOf([...byPath.keys()])).get(folder)?.slice(0, limit) ?? []
	};
}

/** Paths by the folder that they stand in, in the order of their characters. */
function foldersOf(paths: string[]): Map<string, string[]> {
	const byFolder = new Map<string, string[]>();
	const hasPairs = paths.some((path) => /[\ud800-\udfff]/.test(path));
	for (const path of paths.sort(hasPairs ? byCodePoint : undefined)) {
		const folder = folderOver(path);
		if (folder === undefined) continue;
		const inIt = byFolder.get(folder);
		if (inIt) inIt.push(path);
		else byFolder.set(folder, [path]);
	}
	return byFolder;
}

function byCodePoint(a: string, b: string): number {
	const [mine, theirs] = [[...a], [...b]];
	const at = mine.findIndex((one, index) => one !== theirs[index]);
	if (at < 0) return mine.length - theirs.length;
	return (mine[at] as string).codePointAt(0)! - (theirs[at]?.codePointAt(0) ?? -1);
}

/** The folder that a path stands in: `/walks/` for `/walks/cliff` and for `/walks/cliff/`; undefined for the home page. */
function folderOver(path: string): string | undefined {
	const inner = path.replace(/\/$/, '');
	return inner === '' ? undefined : inner.slice(0, inner.lastIndexOf('/') + 1);
}

/** Stands, among the paths that a page reads, for all pages directly below a folder: which they are, not what they say. */
export const belowMark = (folder: string) => `${folder}*`;

/** So many of the pages below one are listed. */
export const MOST_BELOW = 100;
/** From page to page, heads are read so far. */
const MOST_STEPS = 8;
/** So many other pages are worked out for the sake of one. */
const MOST_MEMBERS = 1000;

/** A page whose head another reads. */
interface Headed {
	headValue(tag: string): string;
}

/** The pages that are worked out for the sake of one, each once, on one watch for circles. */
export class Company {
	readonly watch = new LoopWatch();
	/** The paths that what the page comes to depends on. */
	readonly reads = new Set<string>();
	/** Those of them whose heads are read. */
	readonly heads = new Set<string>();
	/** Something in any of them has asked for the moment of rendering. */
	isTimed = false;
	/** When any of them comes to something else by itself, in milliseconds. */
	nextChange = Infinity;
	private readonly members = new Map<string, Headed>();
	private steps = 0;

	constructor(private readonly evaluate: (page: Page, company: Company) => Headed) {}

	/** What a tag of another page came to, in its own language; nothing too many steps away. */
	headOf(page: Page, tag: string): string {
		if (this.steps >= MOST_STEPS) return '';
		let member = this.members.get(page.path);
		if (!member) {
			if (this.members.size >= MOST_MEMBERS) return '';
			this.members.set(page.path, (member = this.evaluate(page, this)));
		}
		this.heads.add(page.path);
		this.steps++;
		try {
			return member.headValue(tag);
		} finally {
			this.steps--;
		}
	}

	/** The page itself is one of them: a head that leads back to it closes a circle. */
	join(path: string, page: Headed) {
		this.members.set(path, page);
	}
}

/** Why a page that another names cannot be read: there is none, nobody sees it, or it is the page itself. */
export type Unread = 'nowhere' | 'hidden' | 'itself';

/** What is the same for all pages of a site that ask for others. */
interface Surroundings {
	readonly site: Site;
	readonly types: ReadonlyMap<string, ContentType>;
	readonly addresses: AddressBook;
	readonly others: SitePages | undefined;
}

/** What is asked of other pages while one is worked out; every path that was asked for is noted, there or not. */
export class OtherPages {
	private readonly isPublic: ReturnType<typeof publicIn>;

	constructor(
		private readonly around: Surroundings,
		private readonly page: Page,
		private readonly language: string,
		private readonly company: Company
	) {
		this.isPublic = publicIn([...around.types.values()]);
	}

	/** The path that a value names, as the site has it: an address of the site is one of its pages. */
	private pathIn(value: string): string | undefined {
		const { base } = this.around.addresses;
		const path = base !== undefined && value.startsWith(base) ? `/${value.slice(base.length)}` : value;
		return path.startsWith('/') && !path.startsWith('//') ? path.split(/[?#]/, 1)[0] : undefined;
	}

	/** A page that is there for everyone, and is another one; or why it cannot be read. A former path leads on. */
	look(value: string): Page | Unread {
		const path = this.pathIn(value);
		if (path === undefined) return 'nowhere';
		const other = this.lookAt(path);
		if (other !== 'nowhere') return other;
		const to = this.around.others?.leads(path);
		return to === undefined ? 'nowhere' : this.lookAt(to);
	}

	private lookAt(path: string): Page | Unread {
		if (path === this.page.path) return 'itself';
		this.company.reads.add(path);
		const other = this.around.others?.at(path);
		if (!other) return 'nowhere';
		return this.isPublic(other) ? other : 'hidden';
	}

	/** The folders above the page, the nearest first, each with the ways in which a page can stand there. */
	private *above(): Generator<readonly string[]> {
		const steps = this.page.path.replace(/\/$/, '').split('/').slice(0, -1);
		for (let depth = steps.length; depth > 0; depth--) {
			const folder = steps.slice(0, depth).join('/');
			yield folder === '' ? ['/'] : [`${folder}/`, folder];
		}
	}

	private firstOf(paths: readonly string[]): Page | undefined {
		for (const path of paths) {
			const other = this.lookAt(path);
			if (typeof other === 'object') return other;
		}
		return undefined;
	}

	/** The page above: what stands at the nearest folder over its path. */
	parent(): Page | undefined {
		for (const paths of this.above()) {
			const other = this.firstOf(paths);
			if (other) return other;
		}
		return undefined;
	}

	/** The pages above it, from the top down; the home page is not one of them. */
	way(): string[] {
		return [...this.above()]
			.filter(([first]) => first !== '/')
			.flatMap((paths) => this.firstOf(paths)?.path ?? [])
			.reverse();
	}

	/** The first pages directly below it that everyone sees. */
	below(): string[] {
		const folder = this.page.path.endsWith('/') ? this.page.path : `${this.page.path}/`;
		this.company.reads.add(belowMark(folder));
		const paths = this.around.others?.below(folder, MOST_BELOW) ?? [];
		return paths.filter((path) => typeof this.lookAt(path) === 'object');
	}

	/** The page that its author's address leads to. */
	profile(): Page | undefined {
		const author = ownValue(this.page.fields ?? {}, 'author');
		const [first] = isList(author) ? (author as readonly Value[]) : [author];
		const other = this.look(toText(partOf(first, 'address')));
		return typeof other === 'object' ? other : undefined;
	}

	/** The same page in the site's first language, for a page in another. */
	original(): Page | undefined {
		const first = this.around.site.languages[0];
		if (first === undefined || first === this.language) return undefined;
		const other = this.version(this.page, first);
		return other === this.page ? undefined : other;
	}

	/** A page in a language, where it has such a version that everyone sees; else as it is. */
	private version(page: Page, language: string): Page {
		const path = inLanguage(page.alternates, language, (one) => typeof one === 'string' && one !== page.path);
		const other = path === undefined ? undefined : this.look(path);
		return typeof other === 'object' ? other : page;
	}

	/**
	 * What a page says that a value leads to: a field of it, `head.` and a tag, or a field of a page that a field of it leads
	 * to. In the language of the page that asks, where there is such a version and it says something, unless that is `asIs`.
	 */
	part(value: string, name: string, asIs = false): Value {
		const named = this.look(value);
		if (typeof named === 'string') return undefined;
		if (asIs || languageOf(named, this.around.site) === this.language) return this.partOf(named, name);
		const version = this.version(named, this.language);
		const said = this.partOf(version, name);
		return version !== named && isEmpty(said) ? this.partOf(named, name) : said;
	}

	private partOf(other: Page, name: string): Value {
		const dot = name.indexOf('.');
		if (dot < 0) return this.fieldOf(other, name);
		const [first, rest] = [name.slice(0, dot), name.slice(dot + 1)];
		if (first === 'head') return this.company.headOf(other, rest);
		const value = ownValue(other.fields, first);
		const isPage = this.around.types.get(other.type)?.fields?.some((one) => one.name === first && one.kind === 'page');
		if (!isPage || typeof value !== 'string') return partOf(value, rest);
		if (rest.includes('.')) return undefined;
		const next = this.look(value);
		return typeof next === 'string' ? undefined : this.fieldOf(this.version(next, this.language), rest);
	}

	/** One field of another page, in the words that it has for its value; its body is not read. */
	private fieldOf(other: Page, name: string): Value {
		const { site, types, addresses } = this.around;
		switch (name) {
			case 'path':
				return other.path;
			case 'address':
				return addresses.ofPath(other.path);
			case 'language':
				return other.language ?? site.languages[0];
			case 'modified':
				return other.modified;
			case 'body':
				return undefined;
		}
		const said = saidOf(types.get(other.type), this.language, site.languages[0] ?? '');
		const own = ownValue(other.fields, name);
		return said ? said(name, own) : own;
	}

	/** The references of a page that lead to no other page, by field. */
	unread(type: ContentType | undefined): { readonly field: string; readonly path: string; readonly why: Unread }[] {
		return (type?.fields ?? []).flatMap(({ name, kind }) => {
			if (kind !== 'page' && kind !== 'pages') return [];
			const value = ownValue(this.page.fields, name);
			const items = isList(value) ? (value as readonly Value[]) : [value];
			return items.flatMap((item) => {
				const path = isEmpty(item) ? '' : toText(item);
				const other = path === '' ? undefined : this.look(path);
				return typeof other === 'string' ? [{ field: name, path, why: other }] : [];
			});
		});
	}
}
