import type { Page } from '../model';
import { isLocalAddress } from '../resolve/address';
import type { Resolution } from '../resolve/resolution';
import type { Head } from '../resolve/types';
import { hasGap, hasTwice } from '../text/faults';
import { countGraphemes } from '../text/text';

/** One thing that is wrong or weak on a page as readers of links would see it. */
export interface PageFault {
	readonly code: FaultCode;
	/** The tag to go to. */
	readonly tag: string;
	/** What is wrong, in words. */
	readonly says: string;
}

export type FaultCode =
	| 'no-title'
	| 'no-description'
	| 'no-picture'
	| 'small-picture'
	| 'logo-picture'
	| 'local-address'
	| 'bare-title'
	| 'brand-twice'
	| 'gap'
	| 'long-title'
	| 'long-description'
	| 'short-description';

/** How much each fault spoils a card; the sum orders the pages. What would mend most of a kind, in words. */
export const FAULTS: Readonly<Record<FaultCode, { readonly weight: number; readonly mend: string }>> = {
	'local-address': { weight: 10, mend: 'Set the public base address of the site.' },
	'no-picture': { weight: 6, mend: 'Give the site a share picture: it stands in wherever a page has none.' },
	'no-title': { weight: 6, mend: 'Write a title template at the site, such as {page.title} {sep} {site.name}.' },
	gap: { weight: 5, mend: 'Put what belongs to a variable into [[ … ]], so that it goes when the variable is empty.' },
	'brand-twice': { weight: 5, mend: 'Take {site.name} out of the template: the pages’ own titles carry it already.' },
	'bare-title': { weight: 4, mend: 'Write the home page’s title from {site.name} and {site.tagline}.' },
	'no-description': { weight: 4, mend: 'Let the description fall back: {page.summary ?? site.description}.' },
	'logo-picture': { weight: 4, mend: 'Put a picture of the page before the logo in the list of picture sources.' },
	'small-picture': {
		weight: 3,
		mend: 'Set a least width of 600 pixels for share pictures, so that small ones are passed over.'
	},
	'long-title': { weight: 2, mend: 'Clip what is long in the title: {page.title | clip 50}.' },
	'long-description': { weight: 1, mend: 'Clip the description: {page.summary | clip 155}.' },
	'short-description': { weight: 1, mend: 'Add a second source to the description, such as the type’s own fields.' }
};

/** What is known of a page beside its head: variables that left gaps, the picture that a tag came to, and its facts. */
export type KnownOfPage = Pick<Resolution, 'gapsOf' | 'pictureOf' | 'facts'>;

/** What a reader of links would find wrong with a page's card. Pure; the order is that of the page's head. */
export function faultsOf(page: Page, head: Head, known?: KnownOfPage): PageFault[] {
	const gapsOf = (tag: string) => known?.gapsOf(tag) ?? [];
	const value = (name: string) => head.tags.find(({ tag }) => tag.name === name)?.value ?? '';
	return [
		...titleFaults(page, value('title'), value('og:site_name'), gapsOf('title')),
		...descriptionFaults(value('description'), gapsOf('description')),
		...pictureFaults(value, known),
		...addressFaults(value('canonical'))
	];
}

/** How badly a page would be shared: the sum of its faults' weights. */
export const weightOf = (faults: readonly PageFault[]) =>
	faults.reduce((sum, { code }) => sum + FAULTS[code].weight, 0);

const fault = (code: FaultCode, tag: string, says: string): PageFault => ({ code, tag, says });

function gapFaults(tag: string, text: string, gaps: readonly string[]): PageFault[] {
	if (gaps.length > 0) return [fault('gap', tag, `${gaps.join(', ')} left a gap in the ${tag}`)];
	return hasGap(text) ? [fault('gap', tag, `Something left a gap in the ${tag}`)] : [];
}

function titleFaults(page: Page, title: string, brand: string, gaps: readonly string[]): PageFault[] {
	if (title === '') return [fault('no-title', 'title', 'It has no title')];
	const length = countGraphemes(title);
	return [
		...(page.path === '/' && /^(home|index|welcome|start|accueil)$/i.test(title)
			? [fault('bare-title', 'title', `The home page calls itself “${title}”`)]
			: []),
		...(hasTwice(title, brand) ? [fault('brand-twice', 'title', 'The site’s name stands in the title twice')] : []),
		...gapFaults('title', title, gaps),
		...(length > 70 ? [fault('long-title', 'title', `The title has ${length} characters and will be cut`)] : [])
	];
}

function descriptionFaults(description: string, gaps: readonly string[]): PageFault[] {
	if (description === '') return [fault('no-description', 'description', 'It has no description')];
	const length = countGraphemes(description);
	return [
		...gapFaults('description', description, gaps),
		...(length > 200
			? [fault('long-description', 'description', `The description has ${length} characters and will be cut`)]
			: []),
		...(length < 40 ? [fault('short-description', 'description', `The description has only ${length} characters`)] : [])
	];
}

function pictureFaults(value: (name: string) => string, known: KnownOfPage | undefined): PageFault[] {
	const address = value('og:image');
	if (address === '') return [fault('no-picture', 'og:image', 'No picture: its card stays blank')];
	const width = Number(value('og:image:width')) || undefined;
	// A cut has an address of its own: the picture it is cut from tells what it is.
	const src = known?.pictureOf('og:image')?.src ?? address;
	const facts = known?.facts(src);
	if (facts?.mark || facts?.plain || /(^|[^a-z])logos?([^a-z]|$)/i.test(src.slice(src.lastIndexOf('/'))))
		return [fault('logo-picture', 'og:image', 'The picture is a logo')];
	return width !== undefined && width < 600
		? [fault('small-picture', 'og:image', `The picture is ${width} pixels wide: too small for a large card`)]
		: [];
}

const addressFaults = (canonical: string): PageFault[] =>
	canonical === '' || isLocalAddress(canonical)
		? [fault('local-address', 'canonical', 'Its address leads to no place that readers can reach')]
		: [];
