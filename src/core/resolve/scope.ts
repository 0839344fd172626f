import type { ContentType, FoundTag, Page, Picture, PictureMention, Site } from '../model';
import type { Scope } from '../template/compile';
import type { AddressBook } from './address';
import type { PictureMiss, SkippedSource } from './trace';
import type { ChosenPicture, TagValue } from './value';

/** Looks a picture up by its source; undefined when nothing is known of it. */
export type PictureFacts = (src: string) => Picture | undefined;

/**
 * What rules, built-ins and picture sources can ask of the page that they are tried on. Templates ask for the part of
 * it that `Scope` names. It is one page on its way through the rules: see `page.ts`.
 */
export interface PageScope extends Scope {
	readonly site: Site;
	readonly type: ContentType | undefined;
	readonly page: Page;
	readonly addresses: AddressBook;
	readonly pageAddress: string | undefined;
	/** No search engine is to list it. */
	readonly isHidden: boolean;
	/** The type's default picture for this page. */
	readonly typePicture: PictureMention | undefined;
	/** The mark for video is laid over its pictures. */
	readonly playMark: boolean;
	readonly facts: PictureFacts;
	/** What became of pictures chosen before, by their source: the same few stand on many pages. */
	readonly choices: Map<string, ChosenPicture | PictureMiss>;
	/** The share picture made from the page; undefined when its type has no layout. */
	sharePicture(): ChosenPicture | undefined;
	/** What the page's own file said of a tag, in its order. */
	foundOf(tag: string): readonly FoundTag[];
	/** On how many pages a found value stands, when that makes it the frame's; undefined for the page's own. */
	frameCount(tag: string, value: string): number | undefined;
	/** Whether a found value of a description only says again what the page is called. */
	repeatsTitle(tag: string, value: string): boolean;

	/** The name of a tag by its place in the plan. */
	tagAt(index: number): string;
	/** What a tag came to; undefined for nothing and for tags nobody speaks of. */
	valueOf(tag: string): TagValue | undefined;
	/** The same by place in the plan; null for nothing. */
	valueAt(index: number): TagValue | null;
	/** The same as one text: the first of several, the address of a picture. */
	textOf(tag: string): string;
	pictureOf(tag: string): ChosenPicture | undefined;

	/** A trace is wanted: what is skipped on the way is noted. */
	readonly isTraced: boolean;
	noteSkipped(chooser: object, skipped: readonly SkippedSource[]): void;
	skippedBy(chooser: object): readonly SkippedSource[];
}
