import type { Picture, Recipe } from '$core';
import type { PictureUses } from '../../heads/uses';
import type { Composed } from '../../jobs/compose';
import type { Released } from '../../jobs/kinds';
import type { DriftOfSite } from '../../probes/drift';
import type { ToldLook } from '../../probes/told';
import type { CardsTold } from '../../readers/cards';
import type { PageDifference } from '../../releases/releases';
import type { PageRelease, Release } from '../../store/releases/releases';
import type { Pending } from '../../web/pending';
import type { Sheet } from '../../web/sheet';
import type { Sure } from './shared';

/** What goes out: releases, what readers and servers show of it, and pictures. */
export interface ReleaseRoutes {
	/** What of the working copy differs from the newest release. */
	'GET /sites/{site}/pending': { answer: Pending };
	/** What a release would send out now, thirty pages at a time. */
	'GET /sites/{site}/sheet': {
		query: {
			/** Those that follow the ones seen: `next` of the answer before. */
			readonly after?: string;
			readonly q?: string;
		};
		answer: Sheet;
	};
	/** Makes the working copy what visitors see. Sent again with the same `Idempotency-Key`, it is made once. */
	'POST /sites/{site}/release': {
		body: {
			readonly note?: string;
			/** The paths of the pages that go out alone. */
			readonly only?: readonly string[];
		} & Sure;
		lines: true;
		answer: Released;
	};
	/** The history of releases, the newest first. */
	'GET /sites/{site}/releases': { answer: readonly Release[] };
	/** Goes back: a new release of an old one's heads. */
	'POST /sites/{site}/releases': {
		body: {
			/** @asType integer */
			readonly backTo: number;
			readonly note?: string;
		} & Sure;
		lines: true;
		answer: Release;
	};
	/** What differs between two releases, or of one page between them. */
	'GET /sites/{site}/releases/between': {
		query: {
			/** @asType integer */
			readonly from: number;
			/** @asType integer */
			readonly to: number;
			readonly path?: string;
		};
		answer: { readonly count: number; readonly pages: readonly PageDifference[] };
	};
	/** A page through all releases. */
	'GET /sites/{site}/releases/page': { query: { readonly path: string }; answer: readonly PageRelease[] };
	/** A sitemap of what is released. */
	'GET /sites/{site}/sitemap': {
		query: {
			/** `sitemap.xml` where none is named. */
			readonly name?: string;
		};
		media: 'application/xml';
	};
	/** The robots.txt of the site, to be served at the root of its host. */
	'GET /sites/{site}/robots': { media: 'text/plain' };

	/** What readers last showed of the site's pages, held against what is released. */
	'GET /sites/{site}/cards': { answer: CardsTold };
	/** Asks the readers for their cards, or tells those with old ones to fetch again. Going away stops it. */
	'POST /sites/{site}/cards': {
		body: { readonly do: 'look' | 'tell' };
		lines: true;
		answer: { readonly asked: number };
	};
	/** Looks at an address, or at a page by its path, as all readers would. Going away stops it. */
	'POST /sites/{site}/probe': {
		body: {
			/** @pattern \S */
			readonly address: string;
			/** A machine that stands in for the site's public name: one that whoever started the server named with `--source`. */
			readonly via?: string;
		};
		answer: ToldLook;
	};
	/** What is served of the site against what was released, as it was last looked at. */
	'GET /sites/{site}/drift': { answer: DriftOfSite };
	/** Looks now. Going away stops it; asked again, it goes on. */
	'POST /sites/{site}/drift': {
		body: Readonly<Record<string, never>>;
		lines: true;
		answer: { readonly drift: DriftOfSite };
	};
	/** Sets how often it looks by itself. */
	'PUT /sites/{site}/drift': { body: { readonly every: DriftOfSite['every'] }; answer: DriftOfSite };
	/** Ticks an item of the list for a launch, or takes the tick away. */
	'POST /sites/{site}/launch': {
		body: {
			/** @minLength 1 @maxLength 200 */
			readonly id: string;
			readonly on: boolean;
		};
		answer: readonly string[];
	};
	/** The pictures of a site, by their source. */
	'GET /sites/{site}/pictures': { answer: readonly Picture[] };
	/** Takes a picture into the library: its bytes, its name in `X-File-Name` (percent-encoded). */
	'POST /sites/{site}/pictures': { takes: 'bytes'; answer: Picture };
	/** The same, fetched from an address. */
	'POST /sites/{site}/pictures/fetched': { body: { readonly address: string }; answer: Picture };
	/** Takes a picture out of the library that nothing uses. */
	'DELETE /sites/{site}/pictures': { body: { readonly src: string }; answer: Readonly<Record<string, never>> };
	/** Where each picture is used, by its source. */
	'GET /sites/{site}/pictures/uses': { answer: PictureUses };
	/** Draws a share picture as it would be: for looking at it before anything is kept. */
	'POST /sites/{site}/share': { body: Recipe; media: 'image/jpeg' };
	/** Draws the share pictures of a type, or of one page. Going away stops it; asking again goes on where it stopped. */
	'POST /sites/{site}/compose': {
		body: { readonly type?: string; readonly path?: string };
		lines: true;
		answer: { readonly composed: Composed };
	};
}
