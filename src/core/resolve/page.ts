import type { TagDefinition, TagFamily } from '../catalogue/types';
import { readingMinutes } from '../markup/reading';
import {
	PAGE_FACTS,
	type ContentType,
	type FoundTag,
	type Layer,
	type Page,
	type Picture,
	type PictureMention,
	type Site,
	type Words
} from '../model';
import { isEmpty, ownValue, toText, type Value } from '../template/values';
import type { AddressBook } from './address';
import { LEFT_OUT, type Candidate, type Evaluate } from './candidate';
import { foundBook } from './found';
import type { FrameBook } from './frames';
import { inLanguage, languageOf, UNKNOWN_LANGUAGE } from './language';
import { lettersOf } from '../text/text';
import type { LoopWatch } from './loops';
import type { Plan } from './plan';
import type { PageScope, PictureFacts } from './scope';
import { endOnWatch, searchOnWatch, searchQuietly, tryCandidate, type SearchRecord, type TracedSearch } from './search';
import { composeSharePicture, shareLeadOf } from './sharePicture';
import type { SkippedSource } from './trace';
import { Company, OtherPages, type SitePages } from './others';
import { wordsIn } from './words';
import { pictureOfValue, textOfValue, type ChosenPicture, type TagValue } from './value';

/** What is the same for all pages of a site. */
export interface SiteScope {
	readonly site: Site;
	readonly types: ReadonlyMap<string, ContentType>;
	readonly others: SitePages | undefined;
	readonly addresses: AddressBook;
	readonly facts: PictureFacts;
	readonly frames: FrameBook;
	/** The moment that `{now}` names, and what the clock shows. */
	readonly moment: string;
	readonly now: string;
	/** With its spaces. */
	readonly separator: string;
	readonly choices: PageScope['choices'];
	/** A page as others read it. */
	readonly member: (page: Page, company: Company) => PageEvaluation;
}

const NO_READS: ReadonlySet<string> = new Set();
/** What every page has that holds another page, or several. */
const WAYS: ReadonlySet<string> = new Set(
	PAGE_FACTS.flatMap(({ name, kind }) => (kind === 'page' || kind === 'pages' ? [name] : []))
);
const NO_CIRCLES: ReturnType<LoopWatch['circlesOf']> = [];
const NO_REFERENCES: ReturnType<OtherPages['unread']> = [];

/** Found values of these are words about the page. */
const DESCRIPTIONS: ReadonlySet<string> = new Set(['description', 'og:description', 'twitter:description']);

const known = (language: string | undefined) => (language === UNKNOWN_LANGUAGE ? undefined : language);

const own = (record: object | undefined, name: string): Value =>
	record === undefined ? undefined : ownValue(record, name);

/**
 * One page on its way through the rules: what templates ask for, and what each tag came to. A tag is worked out when it
 * is first asked for. With a `record`, every search also records how it went; without, nothing is kept but the values.
 */
export class PageEvaluation implements PageScope {
	readonly site: Site;
	readonly addresses: AddressBook;
	readonly language: string;
	readonly separator: string;
	readonly said: Plan['said'];
	readonly pageAddress: string | undefined;
	readonly fields: Page['fields'];
	/** Only where the rules could lead in a circle. */
	readonly watch: LoopWatch | undefined;
	private readonly values: (TagValue | null | undefined)[];
	/** By place; none without a record. */
	readonly searches: readonly TracedSearch[];
	private picture: ChosenPicture | 'being composed' | undefined;

	constructor(
		private readonly scope: SiteScope,
		readonly type: ContentType | undefined,
		readonly page: Page,
		readonly plan: Plan,
		readonly record: SearchRecord | undefined,
		company?: Company
	) {
		this.site = scope.site;
		this.addresses = scope.addresses;
		this.language = languageOf(page, scope.site);
		this.separator = scope.separator;
		this.said = plan.said;
		this.fields = page.fields ?? NO_FIELDS;
		this.company = company ?? (plan.hasCircle || plan.readsHeads ? this.newCompany() : undefined);
		this.watch = this.company?.watch;
		this.pageAddress = scope.addresses.ofPath(page.path);
		this.values = plan.start.slice();
		this.searches = record ? plan.searches() : NO_SEARCHES;
	}

	/** Those that are worked out with it; from the start where the rules could lead in a circle, or read other heads. */
	private company: Company | undefined;
	private others: OtherPages | undefined;
	private get otherPages(): OtherPages {
		this.company ??= this.newCompany();
		return (this.others ??= new OtherPages(this.scope, this.page, this.language, this.company));
	}
	private newCompany(): Company {
		const company = new Company(this.scope.member);
		company.join(this.page.path, this);
		return company;
	}
	/** Paths of other pages that were asked for, there or not. */
	get reads(): ReadonlySet<string> {
		return this.company?.reads ?? NO_READS;
	}
	/** Those of them whose heads were read. */
	get headsRead(): ReadonlySet<string> {
		return this.company?.heads ?? NO_READS;
	}
	partOfPage(field: string | undefined, path: string, part: string): Value {
		const isMeant =
			field === undefined ||
			WAYS.has(field) ||
			this.type?.fields.some(({ name, kind }) => name === field && kind === 'page');
		return isMeant ? this.otherPages.part(path, part, field === 'original') : undefined;
	}
	/** Circles through the heads of other pages that rules of this one were left for. */
	headCircles() {
		return this.watch?.circlesOf(this) ?? NO_CIRCLES;
	}
	/** References of the page that lead to no other page. */
	lostReferences() {
		return this.type?.fields?.some?.(({ kind }) => kind === 'page' || kind === 'pages')
			? this.otherPages.unread(this.type)
			: NO_REFERENCES;
	}

	/** Something has asked for the moment of rendering: the head may be another one at another moment. */
	get isTimed() {
		return this.hasAskedNow || this.company?.isTimed === true;
	}
	private hasAskedNow = false;
	private noteTime() {
		this.hasAskedNow = true;
		if (this.company) this.company.isTimed = true;
	}
	get now() {
		this.noteTime();
		return this.scope.now;
	}
	get moment() {
		this.noteTime();
		return this.scope.moment;
	}
	/** When the head comes to something else by itself, in milliseconds; infinite where it never does. What names the moment itself does not count. */
	get nextChange(): number {
		return Math.min(this.ownChange, this.company?.nextChange ?? Infinity);
	}
	private ownChange = Infinity;
	changesAt(moment: number) {
		// A date beyond what can be told never comes.
		if (Number.isNaN(moment)) return;
		this.ownChange = Math.min(this.ownChange, moment);
		if (this.company) this.company.nextChange = Math.min(this.company.nextChange, moment);
	}
	get choices() {
		return this.scope.choices;
	}
	get facts(): PictureFacts {
		return this.scope.facts;
	}
	get isTraced(): boolean {
		return this.record !== undefined;
	}
	noteSkipped(chooser: object, skipped: readonly SkippedSource[]) {
		this.record?.noteSkipped(chooser, skipped);
	}
	skippedBy(chooser: object): readonly SkippedSource[] {
		return this.record?.skippedBy(chooser) ?? [];
	}

	get typePicture(): PictureMention | undefined {
		const by = this.type?.pictureBy;
		if (!by) return this.type?.picture;
		const value = by.field === 'listing' ? this.listingValue('title') : this.pageValue(by.field);
		return (ownValue(by.pictures, toText(value)) as PictureMention | undefined) ?? this.type?.picture;
	}
	get playMark(): boolean {
		return this.page.playMark ?? this.type?.playMark ?? false;
	}
	get isHidden(): boolean {
		return this.page.hidden === true || this.type?.special === 'not-found';
	}

	/** The share picture, where anything has asked for it. */
	get composedPicture(): ChosenPicture | undefined {
		return this.picture === 'being composed' ? undefined : this.picture;
	}

	sharePicture(): ChosenPicture | undefined {
		// A layout that asks what its own tag came to finds nothing there.
		if (this.picture === undefined && this.type?.layout) {
			this.picture = 'being composed';
			try {
				this.picture = composeSharePicture(this, this.type.layout);
			} finally {
				// Left for a circle, or failed: whoever asks next tries again.
				if (this.picture === 'being composed') this.picture = undefined;
			}
		}
		return this.composedPicture;
	}

	/** The page's own picture that its share picture is made with. */
	shareLead(): Picture | undefined {
		return shareLeadOf(this);
	}

	foundOf(tag: string): readonly FoundTag[] {
		return foundBook(this.page.found).of(tag);
	}
	frameCount(tag: string, value: string): number | undefined {
		return this.scope.frames.countOf(tag, this.language, value);
	}

	repeatsTitle(tag: string, value: string): boolean {
		if (!DESCRIPTIONS.has(tag)) return false;
		const letters = lettersOf(value);
		return [...foundBook(this.page.found).titles, toText(own(this.fields, 'title'))].some(
			(title) => lettersOf(title) === letters
		);
	}

	pageValue(name: string): Value {
		switch (name) {
			case 'path':
				return this.page.path;
			case 'address':
				return this.pageAddress;
			case 'language':
				return known(this.language);
			case 'modified':
				return this.page.modified;
			case 'parent':
				return this.otherPages.parent()?.path;
			case 'original':
				return this.otherPages.original()?.path;
			case 'top':
				return this.otherPages.way()[0];
			case 'way':
				return this.otherPages.way();
			case 'below':
				return this.otherPages.below();
			case 'profile':
				return this.otherPages.profile()?.path;
			case 'minutes':
				return readingMinutes(toText(own(this.fields, 'body')));
			default:
				return own(this.fields, name);
		}
	}

	siteValue(name: string): Value {
		if (name === 'name') return this.translated(name) ?? this.site.name;
		if (name === 'base') return this.addresses.base;
		if (name === 'language') return known(this.site.languages[0]);
		return this.translated(name) ?? own(this.site.fields, name);
	}

	/** A field of the site in the page's language or its shorter forms, found as rules are. */
	private translated(name: string): Value {
		const { translations } = this.site;
		if (!translations) return undefined;
		const fields = inLanguage(translations, this.language, (one) => !isEmpty(own(one, name)));
		return own(fields, name);
	}

	wordValue(name: string): Value {
		const words = this.site.words && own(this.site.words, name);
		return wordsIn(words as Words | undefined, this.language, this.site.languages[0] ?? '');
	}

	/** The zone that dates without an offset are meant in. */
	get timeZone() {
		return this.site.timeZone;
	}

	typeValue(name: string): Value {
		if (name === 'one' || name === 'many')
			return wordsIn(this.type?.names?.[name], this.language, this.site.languages[0] ?? '') ?? this.type?.label;
		return name === 'name' || name === 'label' || name === 'kind' ? this.type?.[name] : undefined;
	}

	listingValue(name: string): Value {
		return own(this.page.listing, name);
	}

	headValue(tag: string): string {
		return this.textOf(tag);
	}

	tagAt(index: number): string {
		return (this.plan.tags[index] as TagDefinition).name;
	}

	valueOf(tag: string): TagValue | undefined {
		const index = this.plan.indexOf.get(tag);
		return index === undefined ? undefined : (this.valueAt(index) ?? undefined);
	}

	textOf(tag: string): string {
		return textOfValue(this.valueOf(tag));
	}

	pictureOf(tag: string): ChosenPicture | undefined {
		return pictureOfValue(this.valueOf(tag));
	}

	valueAt(index: number): TagValue | null {
		const known = this.values[index];
		if (known !== undefined) return known;
		return (this.values[index] = this.search(index));
	}

	private search(index: number): TagValue | null {
		const { plan, record, watch } = this;
		if (!watch) {
			if (record) return (this.searches[index] as TracedSearch).run(this, record);
			return searchQuietly(plan.evaluators[index] as readonly Evaluate[], this);
		}
		watch.enter(this, index);
		if (record) return (this.searches[index] as TracedSearch).runOnWatch(this, record, watch);
		return searchOnWatch(plan.candidates[index] as readonly Candidate[], index, this, watch);
	}

	/** The names of the tags that a rule ends without a value (R4): whoever else says them, this head does not. */
	leftOut(): string[] {
		const { mayLeaveOut, tags } = this.plan;
		return mayLeaveOut.filter((index) => this.isLeftOut(index)).map((index) => (tags[index] as TagDefinition).name);
	}

	private isLeftOut(index: number): boolean {
		if (this.valueAt(index) !== null) return false;
		const list = this.plan.candidates[index] as readonly Candidate[];
		return list.map((candidate) => tryCandidate(candidate, this)).find((one) => one !== undefined) === LEFT_OUT;
	}

	/** The candidate that ends the search for a tag; undefined for none. */
	winnerOf(tag: string): Candidate | undefined {
		const index = this.plan.indexOf.get(tag);
		if (index === undefined) return undefined;
		const list = this.plan.candidates[index] as readonly Candidate[];
		if (this.watch) return endOnWatch(list, index, this, this.watch)?.candidate;
		return list.find((candidate) => tryCandidate(candidate, this) !== undefined);
	}

	/** The variables that are empty in what a tag came to, with words round the gap; through borrows as they are. */
	gapsOf(tag: string): readonly string[] {
		const winner = this.winnerOf(tag);
		if (!winner) return NO_GAPS;
		return winner.takes === undefined ? (winner.gaps?.(this) ?? NO_GAPS) : this.gapsOf(winner.takes);
	}

	/** Whether any layer says anything of families of tags. */
	get saysOfFamilies(): boolean {
		return (this.page.families ?? this.type?.families ?? this.site.families) !== undefined;
	}

	/** Whether a family of tags goes out, and which layer says so: the nearest that says anything decides (R8). */
	family(family: TagFamily): Switch {
		if (family === 'plain') return ON_BY_DEFAULT;
		const atPage = this.page.families?.[family];
		if (atPage !== undefined) return { on: atPage, layer: 'page' };
		const atType = this.type?.families?.[family];
		if (atType !== undefined) return { on: atType, layer: 'type' };
		const atSite = this.site.families?.[family];
		return atSite === undefined ? ON_BY_DEFAULT : { on: atSite, layer: 'site' };
	}
}

const NO_GAPS: readonly string[] = [];
const NO_SEARCHES: readonly TracedSearch[] = [];
const NO_FIELDS: Page['fields'] = {};

/** Whether something is on, and which layer says so. */
export interface Switch {
	readonly on: boolean;
	readonly layer: Layer;
}

const ON_BY_DEFAULT: Switch = { on: true, layer: 'built-in' };

/** Facts from a list of pictures, by their source. */
export function factsFrom(pictures: readonly Picture[]): PictureFacts {
	let facts = FACTS.get(pictures);
	if (!facts) {
		const known = new Map(pictures.map((picture) => [picture.src, picture]));
		FACTS.set(pictures, (facts = (src) => known.get(src)));
	}
	return facts;
}
/** A list of pictures is never changed in place: each edit of the site asks the same one. */
const FACTS = new WeakMap<readonly Picture[], PictureFacts>();
