import type { ContentType, Layer, Page, Picture, PictureMention, Site } from '../model';
import type { TagFamily } from '../catalogue/types';
import type { Scope } from '../template/compile';
import { ownValue, toText, type Value } from '../template/values';
import type { AddressBook } from './address';
import { readingMinutes } from './builtIns';
import { LEFT_OUT, type Candidate } from './candidate';
import { composeFor } from './composed';
import { LOOPED, LoopWatch } from './loops';
import type { PictureFacts, PictureScope } from './pictures';
import { languageChain, type Plan } from './plan';
import type { Telling } from './telling';
import type { ChosenPicture, TagValue } from './types';

/** What is the same for all pages of a site. */
export interface SiteScope {
	readonly site: Site;
	readonly addresses: AddressBook;
	readonly facts: PictureFacts;
	readonly now: string;
	/** With its spaces. */
	readonly separator: string;
	readonly choices: PictureScope['choices'];
}

const own = (record: object | undefined, name: string): Value =>
	record === undefined ? undefined : ownValue(record, name);

/**
 * One page on its way through the rules: what templates ask for, and what each tag came to. A tag is worked out when it
 * is first asked for. With `telling`, every search also tells how it went; without, nothing is kept but the values.
 */
export class Resolution implements Scope, PictureScope {
	readonly site: Site;
	readonly addresses: AddressBook;
	readonly language: string;
	readonly separator: string;
	readonly pageAddress: string | undefined;
	readonly fields: Page['fields'];
	/** Only where the rules could lead in a circle. */
	readonly watch: LoopWatch | undefined;
	private share: ChosenPicture | 'being made' | undefined;
	private readonly values: (TagValue | null | undefined)[];

	constructor(
		private readonly scope: SiteScope,
		readonly type: ContentType | undefined,
		readonly page: Page,
		readonly plan: Plan,
		/** Filled with how each search went. */
		readonly telling: Telling | undefined
	) {
		this.site = scope.site;
		this.addresses = scope.addresses;
		this.language = page.language ?? scope.site.languages[0] ?? 'en';
		this.separator = scope.separator;
		this.fields = page.fields;
		this.watch = plan.hasCircle ? new LoopWatch((index) => plan.tags[index]!.name) : undefined;
		this.pageAddress = scope.addresses.ofPath(page.path);
		this.values = plan.start.slice();
	}

	get now() {
		return this.scope.now;
	}
	get choices() {
		return this.scope.choices;
	}
	get facts(): PictureFacts {
		return this.scope.facts;
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

	/** The share picture of the page, once anything has asked for it. */
	get made(): ChosenPicture | undefined {
		return this.share === 'being made' ? undefined : this.share;
	}

	composed(): ChosenPicture | undefined {
		// A layout that asks what its own tag came to finds nothing there.
		if (this.share === undefined && this.type?.layout) {
			this.share = 'being made';
			this.share = composeFor(this, this.type.layout);
		}
		return this.made;
	}
	get isHidden(): boolean {
		return this.page.hidden === true || this.type?.special === 'not-found';
	}

	pageValue(name: string): Value {
		switch (name) {
			case 'path':
				return this.page.path;
			case 'address':
				return this.pageAddress;
			case 'language':
				return this.language;
			case 'modified':
				return this.page.modified;
			case 'minutes':
				return readingMinutes(toText(own(this.page.fields, 'body')));
			default:
				return own(this.page.fields, name);
		}
	}

	siteValue(name: string): Value {
		if (name === 'name') return this.translated(name) ?? this.site.name;
		if (name === 'base') return this.addresses.base;
		if (name === 'language') return this.site.languages[0];
		return this.translated(name) ?? own(this.site.fields, name);
	}

	/** A field of the site in the page's language or its shorter forms, found as rules are. */
	private translated(name: string): Value {
		const { translations } = this.site;
		if (!translations) return undefined;
		for (const step of languageChain(this.language)) {
			const tag = Object.keys(translations).find((one) => one.toLowerCase() === step);
			const value = tag === undefined ? undefined : own(translations[tag], name);
			if (value !== undefined && value !== '') return value;
		}
		return undefined;
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

	/** What a tag came to; undefined for nothing and for tags nobody speaks of. */
	valueOf(tag: string): TagValue | undefined {
		const index = this.plan.indexOf.get(tag);
		return index === undefined ? undefined : (this.valueAt(index) ?? undefined);
	}

	/** The same as one text: the first of several, the address of a picture. */
	textOf(tag: string): string {
		const value = this.valueOf(tag);
		if (value === undefined || typeof value === 'string') return value ?? '';
		const first = value[0];
		return first === undefined || typeof first === 'string'
			? (first ?? '')
			: 'address' in first
				? first.address
				: first.value;
	}

	/** The variables that are empty in what a tag came to, with words round the gap; through borrows as they are. */
	gapsOf(tag: string): readonly string[] {
		const index = this.plan.indexOf.get(tag);
		if (index === undefined || this.watch) return NO_GAPS;
		for (const candidate of this.plan.candidates[index] as readonly Candidate[]) {
			if (candidate.evaluate(this) === undefined) continue;
			return candidate.takes === undefined ? (candidate.gaps?.(this) ?? NO_GAPS) : this.gapsOf(candidate.takes);
		}
		return NO_GAPS;
	}

	pictureOf(tag: string): ChosenPicture | undefined {
		const value = this.valueOf(tag);
		const first = typeof value === 'object' ? value[0] : undefined;
		return typeof first === 'object' && 'address' in first ? first : undefined;
	}

	/** By place in the plan. Null for nothing. */
	valueAt(index: number): TagValue | null {
		const known = this.values[index];
		if (known !== undefined) return known;
		this.watch?.enter(index);
		const value = this.telling
			? plannedSearch(this.plan, index).run(this, this.telling)
			: this.watch
				? this.searchOnWatch(this.watch, index)
				: this.search(this.plan.tries[index] as Plan['tries'][number]);
		this.values[index] = value;
		return value;
	}

	private search(tries: readonly Candidate['evaluate'][]): TagValue | null {
		for (let i = 0; i < tries.length; i++) {
			const value = (tries[i] as Candidate['evaluate'])(this);
			if (value === LEFT_OUT) return null;
			if (value !== undefined) return value;
		}
		return null;
	}

	private searchOnWatch(watch: LoopWatch, index: number): TagValue | null {
		for (const candidate of this.plan.candidates[index] as readonly Candidate[]) {
			const value = watch.attempt(index, candidate, () => candidate.evaluate(this));
			if (value === LEFT_OUT) return null;
			if (value !== undefined && value !== LOOPED) return value;
		}
		return null;
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

const plannedSearch = (plan: Plan, index: number) => plan.searches[index] as Plan['searches'][number];

const NO_GAPS: readonly string[] = [];

/** Whether something is on, and which layer says so. */
export interface Switch {
	readonly on: boolean;
	readonly layer: Layer;
}

const ON_BY_DEFAULT: Switch = { on: true, layer: 'built-in' };

/** Facts from a list of pictures, by their source. */
export function factsFrom(pictures: readonly Picture[]): PictureFacts {
	const known = new Map(pictures.map((picture) => [picture.src, picture]));
	return (src) => known.get(src);
}
