import type { Person, Picture, PictureLimits, PictureMention, PictureSource, RuleBody, Shape } from '../model';
import { cutOf, isMoreThanUsed, MEDIA_PATH, readersOfTag } from '../pictures/shapes';
import { isEmpty, ownValue, partOf, toText, type Value } from '../template/values';
import { settleText } from '../text/text';
import { inLanguage } from './language';
import { legalMediaType } from './legal';
import type { PageScope } from './scope';
import type { PictureMiss, SkippedSource } from './trace';
import type { ChosenPicture } from './value';

/** A picture found in a page's text must be at least this wide and high (pixels) to stand for the page: less is an icon. */
export const LEAST_IN_BODY = 144;

type PictureRule = Extract<RuleBody, { kind: 'pictures' }>;

/** The built-in order of sources for a share picture (R5). */
export const BUILT_IN_PICTURES: PictureRule = {
	kind: 'pictures',
	sources: [{ from: 'lead' }, { from: 'body' }, { from: 'type' }, { from: 'site' }]
};

/**
 * Walks the sources in order and takes what fits until there are enough (R6), each in the shapes that the rule asks for.
 * Why the others were skipped is noted only when a list for it is given.
 */
export function choosePictures(
	rule: PictureRule,
	tag: string,
	scope: PageScope,
	skipped?: SkippedSource[]
): readonly ChosenPicture[] {
	return inShapes(chooseWhole(rule, scope, skipped), rule.shapes, tag, scope);
}

function chooseWhole(rule: PictureRule, scope: PageScope, skipped?: SkippedSource[]): readonly ChosenPicture[] {
	const wanted = rule.count ?? 1;
	let chosen = NONE_CHOSEN;
	for (const source of rule.sources) {
		if (chosen.length === wanted) break;
		if (source.from === 'composed') {
			const made = scope.sharePicture();
			if (made) chosen = [...chosen, made];
			else skipped?.push({ source: source.from, why: 'no-layout' });
			continue;
		}
		const mentions = mentionsOf(source as MentioningSource, scope);
		if (mentions.length === 0) skipped?.push({ source: nameOfSource(source), why: 'missing' });
		for (const mention of mentions) {
			if (chosen.length === wanted) return chosen;
			const picture = choosePicture(
				mention,
				scope,
				limitsFor(source as MentioningSource, rule.limits),
				source.from === 'body'
			);
			if ('why' in picture) skipped?.push({ source: nameOfSource(source), ...picture });
			else if (chosen.length === 0) chosen = [picture];
			else if (!chosen.some((other) => other.address === picture.address)) chosen = [...chosen, picture];
		}
	}
	return chosen;
}

const NONE_CHOSEN: readonly ChosenPicture[] = [];

/** The tags whose pictures stand for the page. */
const SHARE_TAGS = new Set(['og:image', 'twitter:image']);

/**
 * Pictures in the shapes asked for, each cut for the readers that come to see it there; one that the library does not
 * hold stays whole. Where the page wants the mark for video, whole ones get it too.
 */
export function inShapes(
	pictures: readonly ChosenPicture[],
	shapes: readonly Shape[] | undefined,
	tag: string,
	scope: PageScope
): readonly ChosenPicture[] {
	const isShared = SHARE_TAGS.has(tag);
	const play = scope.playMark && isShared;
	if (!shapes?.length && !play)
		return isShared && pictures.some((one) => isTooMuch(one, scope))
			? pictures.map((one) =>
					isTooMuch(one, scope) ? (cutFor(one, 'whole', readersOfTag(tag, true), false, scope) ?? one) : one
				)
			: pictures;
	const wanted: readonly (Shape | 'whole')[] = shapes?.length ? shapes : ['whole'];
	const all: ChosenPicture[] = [];
	for (const chosen of onePerSource(pictures))
		for (const shape of wanted) {
			const next = cutFor(chosen, shape, readersOfTag(tag, all.length === 0), play, scope) ?? chosen;
			if (!all.some(({ address }) => address === next.address)) all.push(next);
		}
	return all;
}

/** One of the library as it came from a camera: it goes out as readers use it. */
function isTooMuch({ src, recipe }: ChosenPicture, scope: PageScope): boolean {
	if (recipe || !src.startsWith(MEDIA_PATH)) return false;
	const picture = scope.facts(src);
	return picture !== undefined && isMoreThanUsed(picture);
}

/** What was cut to several shapes before is one picture again. */
const onePerSource = (pictures: readonly ChosenPicture[]) =>
	pictures.filter(({ src }, at) => pictures.findIndex((other) => other.src === src) === at);

function cutFor(
	chosen: ChosenPicture,
	shape: Shape | 'whole',
	readers: ReturnType<typeof readersOfTag>,
	play: boolean,
	scope: PageScope
): ChosenPicture | undefined {
	const picture = chosen.recipe ? undefined : scope.facts(chosen.src);
	const cut = picture && cutOf(picture, shape, readers, play);
	const address = cut && scope.addresses.ofPicture(MEDIA_PATH + cut.file, scope.pageAddress);
	if (!cut || !address) return undefined;
	const { width, height } = cut;
	return { ...chosen, address, secure: undefined, type: `image/${cut.format}`, width, height };
}

/**
 * A picture by its source or address alone, with what is known of it; a relative one is under `from`. Undefined when
 * the address is not http(s).
 */
export function pictureAt(src: string, scope: PageScope, from = scope.pageAddress): ChosenPicture | undefined {
	const picture = makeChoice({ src }, scope, from);
	return 'why' in picture ? undefined : picture;
}

/** How a source is called in a trace. */
function nameOfSource(source: PictureSource): string {
	if (source.from === 'file') return source.src;
	return source.from === 'field' ? `page.${source.name}` : source.from;
}

type MentioningSource =
	| Extract<PictureSource, { from: 'file' | 'field' }>
	| { readonly from: Exclude<PictureSource['from'], 'file' | 'field' | 'composed'> };

const NO_LIMITS: PictureLimits = {};
const BODY_LIMITS: PictureLimits = { minWidth: LEAST_IN_BODY, minHeight: LEAST_IN_BODY };

function limitsFor(source: MentioningSource, limits: PictureLimits | undefined): PictureLimits {
	if (source.from !== 'body') return limits ?? NO_LIMITS;
	return limits ? { ...BODY_LIMITS, ...limits } : BODY_LIMITS;
}

function mentionsOf(source: MentioningSource, scope: PageScope): readonly PictureMention[] {
	switch (source.from) {
		case 'file':
			return [{ src: source.src, ...(source.alt !== undefined && { alt: source.alt }) }];
		case 'field':
			return toMentions(scope.pageValue(source.name));
		case 'lead':
			return toMentions(ownValue(scope.fields, 'picture'));
		case 'body':
			return toMentions(scope.pageValue('pictures'));
		case 'author':
			return toMentions(partOf(scope.pageValue('author'), 'picture'));
		case 'type':
			return scope.typePicture ? [scope.typePicture] : [];
		case 'site':
			return toMentions(scope.siteValue('picture'));
	}
}

const NONE: readonly PictureMention[] = [];

function toMentions(value: Value): readonly PictureMention[] {
	if (value === undefined || value === null) return NONE;
	if (Array.isArray(value)) return value.flatMap((item: string | number | PictureMention | Person) => toMentions(item));
	const src = typeof value === 'string' ? value : partOf(value, 'src');
	if (typeof src !== 'string' || isEmpty(src)) return NONE;
	const alt = partOf(value, 'alt');
	// Nearly always it is a mention as it stands.
	if (typeof value === 'object' && (alt === undefined || typeof alt === 'string')) return [value as PictureMention];
	return [{ src }];
}

/** Choices kept are dropped all together at this number. */
const MOST_CHOICES = 10_000;

function choosePicture(
	mention: PictureMention,
	scope: PageScope,
	limits: PictureLimits,
	fromBody: boolean
): ChosenPicture | PictureMiss {
	const { src } = mention;
	// What is kept must not depend on the page: an alt text of the mention, limits, or a relative address.
	const isPlain = mention.alt === undefined && limits === NO_LIMITS && src.charCodeAt(0) === SLASH;
	if (!isPlain) return chooseFitting(mention, scope, limits, fromBody);
	let choice = scope.choices.get(src);
	if (choice) return choice;
	choice = chooseFitting(mention, scope, limits, fromBody);
	// Alt texts by language are looked up for each page.
	if (scope.facts(src)?.alts) return choice;
	if (scope.choices.size >= MOST_CHOICES) scope.choices.clear();
	scope.choices.set(src, choice);
	return choice;
}

const SLASH = 47;

function chooseFitting(
	mention: PictureMention,
	scope: PageScope,
	limits: PictureLimits,
	fromBody: boolean
): ChosenPicture | PictureMiss {
	const choice = makeChoice(mention, scope, scope.pageAddress);
	if ('why' in choice) return choice;
	const picture = scope.facts(mention.src);
	return (picture && unfit(picture, limits, fromBody)) ?? choice;
}

function makeChoice(mention: PictureMention, scope: PageScope, from: string | undefined): ChosenPicture | PictureMiss {
	const picture = scope.facts(mention.src) ?? { src: mention.src };
	const address = scope.addresses.ofPicture(mention.src, from);
	if (address === undefined) return { why: 'not-http', picture };
	const { width, height } = picture;
	const isSized = isSide(width) && isSide(height);
	return {
		kind: 'picture',
		address,
		src: mention.src,
		secure: secureOf(picture.secure, scope),
		type: legalMediaType(settleText(toText(picture.type))),
		width: isSized ? width : undefined,
		height: isSized ? height : undefined,
		alt: altOf(mention) || altIn(picture, scope.language) || undefined
	};
}

/** Whether it is a number of pixels that a tag can carry. */
const isSide = (side: unknown): side is number =>
	Number.isInteger(side) && (side as number) > 0 && (side as number) < 1e9;

/** The address of the same picture over https, where it is one (R9). */
export function secureOf(secure: string | undefined, { addresses }: PageScope): string | undefined {
	const address = secure === undefined ? undefined : addresses.ofValue(toText(secure), undefined);
	return address?.startsWith('https:') ? address : undefined;
}

/** The picture's own alt text: for the exact language, for its shorter forms, for any. */
function altIn(picture: Picture, language: string): string {
	const isSaid = (alt: string) => altOf({ alt }) !== '';
	return altOf({ alt: inLanguage(picture.alts, language, isSaid) ?? picture.alt });
}

const altOf = ({ alt }: { readonly alt?: string | undefined }) => (alt === undefined ? '' : settleText(toText(alt)));

/** The first limit a picture does not meet. What is not known of it is not held against it. */
function unfit(picture: Picture, limits: PictureLimits, fromBody: boolean): PictureMiss | undefined {
	const { width, height } = picture;
	if (picture.type === 'image/svg+xml') return { why: 'drawing', picture };
	if (fromBody && picture.repeated) return { why: 'repeated', picture, limit: picture.repeated };
	if (fromBody && picture.mark) return { why: 'mark', picture };
	if (!width || !height) return undefined;
	if (width < (limits.minWidth ?? 0)) return { why: 'too-narrow', picture, limit: limits.minWidth! };
	if (height < (limits.minHeight ?? 0)) return { why: 'too-low', picture, limit: limits.minHeight! };
	const shape = width / height;
	if (shape < (limits.minShape ?? 0)) return { why: 'wrong-shape', picture, limit: limits.minShape! };
	if (shape > (limits.maxShape ?? Infinity)) return { why: 'wrong-shape', picture, limit: limits.maxShape! };
	return undefined;
}
