import type { TagDefinition, TagFamily } from '../catalogue/types';
import { readingMinutes } from '../markup/reading';
import type { ContentType, FoundTag, Layer, Page, Picture, PictureMention, Site } from '../model';
import { isEmpty, ownValue, toText, type Value } from '../template/values';
import type { AddressBook } from './address';
import { LEFT_OUT, type Candidate, type Evaluate } from './candidate';
import { foundBook } from './found';
import type { FrameBook } from './frames';
import { inLanguage, languageOf, UNKNOWN_LANGUAGE } from './language';
import { lettersOf } from '../text/text';
import { LoopWatch } from './loops';
import type { Plan } from './plan';
import type { PageScope, PictureFacts } from './scope';
import { searchOnWatch, searchQuietly, tryCandidate, type SearchRecord, type TracedSearch } from './search';
import { composeSharePicture, shareLeadOf } from './sharePicture';
import type { SkippedSource } from './trace';
import { pictureOfValue, textOfValue, type ChosenPicture, type TagValue } from './value';

/** What is the same for all pages of a site. */
export interface SiteScope {
	readonly site: Site;
	readonly addresses: AddressBook;
	readonly facts: PictureFacts;
	readonly frames: FrameBook;
	readonly now: string;
	/** With its spaces. */
	readonly separator: string;
	readonly choices: PageScope['choices'];
}

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
		readonly record: SearchRecord | undefined
	) {
		this.site = scope.site;
		this.addresses = scope.addresses;
		this.language = languageOf(page, scope.site);
		this.separator = scope.separator;
		this.fields = page.fields ?? NO_FIELDS;
		this.watch = plan.hasCircle ? new LoopWatch((index) => plan.tags[index]!.name) : undefined;
		this.pageAddress = scope.addresses.ofPath(page.path);
		this.values = plan.start.slice();
		this.searches = record ? plan.searches() : NO_SEARCHES;
	}

	/** Something has asked for the moment of rendering: the head may be another one at another moment. */
	isTimed = false;
	get now() {
		this.isTimed = true;
		return this.scope.now;
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
			this.picture = composeSharePicture(this, this.type.layout);
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

	typeValue(name: string): Value {
		return name === 'name' || name === 'label' || name === 'kind' ? this.type?.[name] : undefined;
	}

	listingValue(name: string): Value {
		return own(this.page.listing, name);
	}

	headValue(tag: string): string {
		return this.textOf(tag);
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
		watch.enter(index);
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

	/** The candidate that ends the search for a tag; undefined for none, and where rules could go in circles. */
	winnerOf(tag: string): Candidate | undefined {
		const index = this.plan.indexOf.get(tag);
		if (index === undefined || this.watch) return undefined;
		return (this.plan.candidates[index] as readonly Candidate[]).find(
			(candidate) => tryCandidate(candidate, this) !== undefined
		);
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
