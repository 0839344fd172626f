import type {
	Actor,
	AnyEdit,
	Edit,
	FieldUse,
	GivenWay,
	HardPage,
	Page,
	PageArea,
	Picture,
	Proposal,
	Reach,
	Recipe,
	Role,
	Scope,
	SiteRole,
	TriedPage,
	WorstPages
} from '$core';
import type { Sent } from '../people/mail';
import type { BatchAction, BatchPages, BatchSample } from '../edits/batch';
import type { CellWrite } from '../edits/cells';
import type { PageAction } from '../edits/pages';
import type { TypeAction } from '../edits/types';
import type { CsvTold } from '../exports/csv';
import type { PagesLinking } from '../findings/links';
import type { PictureUses } from '../heads/uses';
import type { Taken } from '../imports/content';
import type { TableLook, TableSource } from '../imports/table/table';
import type { Composed } from '../jobs/compose';
import type { Released } from '../jobs/kinds';
import type { DriftOfSite } from '../probes/drift';
import type { ProbeLook } from '../probes/look';
import type { CardsTold } from '../readers/cards';
import type { PageDifference } from '../releases/releases';
import type { RecordedEdit } from '../store/record/record';
import type { AccessKey } from '../store/people/people';
import type { TrailLine } from '../store/people/trail';
import type { PageRelease, Release } from '../store/releases/releases';
import type { PageFilter, Sort } from '../store/table/grid';
import type { NamedFilter } from '../store/table/filters';
import type { ListedPage } from '../store/table/listing';
import type { WhatLeads } from '../web/benchData';
import type { FindingsTold } from '../web/findings';
import type { GridAnswer, GridWanted } from '../web/grid';
import type { Pending } from '../web/pending';
import type { Sheet } from '../web/sheet';

/** What was kept: the revision of the site after it, and the edit that it is in the record. */
interface Kept {
	readonly revision: number;
	/** Missing where nothing came out different. */
	readonly edit?: number | undefined;
}

/** Who asks. */
interface Me {
	readonly kind: Actor['kind'];
	readonly name?: string;
	/** Owner of every site. */
	readonly isOwner: boolean;
	/** What they are at each site, by its name. */
	readonly roles: Readonly<Record<string, SiteRole>>;
}

/** A session of one's own; moments as ISO 8601. */
interface OwnSession {
	readonly made: string;
	readonly used: string;
	readonly agent: string;
	readonly isThis: boolean;
}

interface OwnPasskey {
	readonly id: string;
	readonly name: string;
	readonly made: string;
	readonly used?: string;
}

/** What a device is asked (WebAuthn level 3, sections 5.4 and 5.5), and the token that its answer comes with. */
interface DeviceAsked {
	readonly token: string;
	readonly options: Readonly<Record<string, unknown>>;
}

interface ListedPerson {
	readonly name: string;
	readonly isOwner: boolean;
	readonly isLocked: boolean;
	/** They have not taken their invitation yet. */
	readonly isInvited: boolean;
	readonly roles: Readonly<Record<string, SiteRole>>;
}

interface PersonAt extends SiteRole {
	readonly name: string;
	readonly isLocked: boolean;
}

interface TrailWanted {
	/** Goes on after the line of this number. @asType integer */
	readonly before?: number | undefined;
	/** @asType integer @minimum 1 @maximum 500 */
	readonly limit?: number;
}

/** Where a switch is on. */
type On = '0' | '1';

/** Who takes much of a site away says how many pages go. */
interface Sure {
	/** @asType integer */
	readonly removes?: number;
}

/** A rule that is set, or taken away where its body is null; `expected` is what the sender saw there. */
interface RuleWrite extends Omit<Edit, 'body'> {
	/** The form of a rule is checked with what it says. */
	readonly body: Readonly<Record<string, unknown>> | null;
	readonly expected?: unknown;
}

/** Settings that are changed, by their names; null sets one back. `expected` are those that the sender saw. */
interface SettingsWrite {
	readonly place: AnyEdit['place'] | { readonly layer: 'picture'; readonly src: string };
	readonly changes: Readonly<Record<string, unknown>>;
	readonly expected?: Readonly<Record<string, unknown>>;
}

/** A starting set, taken into a type. */
interface SetTaken {
	readonly type: string;
	readonly set: string;
}

/** What of a table that comes back is taken though it may not be meant. */
interface Rewritten {
	/** Cells that look rewritten by a spreadsheet, such as 7 for 007, are taken, too. */
	readonly rewritten?: On;
}

/** Which pages of the table, in which order. */
interface Ordered extends PageFilter {
	readonly sort?: Sort;
	readonly down?: On;
}

/** Where the content of a site is; a table comes as the file behind the record. */
type Source =
	| {
			readonly kind: 'folder';
			/** Its whole path on the machine of the server. */
			readonly folder: string;
			readonly said?: Readonly<Record<string, unknown>>;
			readonly trimTitles?: boolean;
			readonly keepTitles?: boolean;
	  }
	| ({ readonly kind: 'table' } & TableSource)
	| { readonly kind: 'web'; readonly from: string }
	| { readonly kind: 'hand' };

/**
 * Every route below `/api`, by its method and path: what is asked with it, what it is sent, and what it answers. The forms
 * that requests and answers are held to are made from here (`npm run forms`), and the client of the rooms is typed by it.
 *
 * - `query` names what may stand behind the `?`.
 * - `body` is sent as JSON; with `takes`, bytes are sent instead of it (`bytes`), or after its line (`record and bytes`).
 * - `lines`: who accepts `application/x-ndjson` is answered in lines of JSON; all but the last say how far it is (`SoFar`).
 * - `media` is the type of an answer that is no JSON.
 *
 * @public It is read by its name where the forms are made.
 */
export interface Contract {
	/** Who asks: the one at this machine while there are no people, a person, a key, or nobody known. */
	'GET /me': { answer: Me };
	/** Signs in; the session comes as a cookie. Who fails too often waits. */
	'POST /session': { body: { readonly name: string; readonly password: string }; answer: Me };
	/** Signs out; of single sign-on, too, where `leave` says. */
	'DELETE /session': { body: Readonly<Record<string, never>>; answer: Me & { readonly leave?: string } };
	/** Where one is signed in. */
	'GET /me/sessions': { answer: readonly OwnSession[] };
	/** Ends all other sessions of one's own. */
	'DELETE /me/sessions': { body: Readonly<Record<string, never>>; answer: readonly OwnSession[] };
	/** One's own passkeys. */
	'GET /me/passkeys': { answer: readonly OwnPasskey[] };
	/** What a device is asked to make a passkey of, and the token that goes with its answer. */
	'POST /me/passkeys/begun': { body: Readonly<Record<string, never>>; answer: DeviceAsked };
	/** Keeps what the device made. */
	'POST /me/passkeys': {
		body: { readonly token: string; readonly name: string; readonly answer: Readonly<Record<string, unknown>> };
		answer: readonly OwnPasskey[];
	};
	/** Names a passkey, or takes it away where no name is given. */
	'PATCH /me/passkeys': { body: { readonly id: string; readonly name?: string }; answer: readonly OwnPasskey[] };
	/** What a device is asked to sign in with any passkey it has. */
	'POST /session/passkey/begun': { body: Readonly<Record<string, never>>; answer: DeviceAsked };
	/** Signs in with what the device signed. */
	'POST /session/passkey': {
		body: { readonly token: string; readonly answer: Readonly<Record<string, unknown>> };
		answer: Me;
	};
	/** Begins single sign-on: where the browser goes. Who is signed in binds that account to themselves. */
	'POST /session/sign-on': { body: { readonly to?: string }; answer: { readonly address: string } };
	/** Where the browser comes back to from single sign-on: it is led on into the application, signed in or told why not. */
	'GET /session/sign-on/back': { query: Readonly<Record<string, string>>; media: 'text/html' };
	/** Takes one of one's recovery codes, which works once, for an invitation to a new password. */
	'POST /session/recovery': {
		body: { readonly name: string; readonly code: string };
		answer: { readonly invitation: string };
	};
	/** How many recovery codes one has left. */
	'GET /me/recovery': { answer: { readonly left: number } };
	/** New recovery codes, told this once; those before are none any more. */
	'POST /me/recovery': { body: { readonly password?: string }; answer: { readonly codes: readonly string[] } };
	/** Changes one's own password; all other sessions end. */
	'PUT /me/password': { body: { readonly old: string; readonly password: string }; answer: Me };
	/** Whom an invitation is for; with a password it is taken, once, and one is signed in. */
	'POST /invitations': {
		body: { readonly token: string; readonly password?: string };
		answer: { readonly name: string };
	};
	/** All people. */
	'GET /people': { answer: readonly ListedPerson[] };
	/** Adds a person; the invitation is handed over by whoever adds them, or sent where mail can be. The first one owns every site. */
	'POST /people': {
		body: { readonly name: string; readonly isOwner?: boolean; readonly mail?: string };
		answer: { readonly invitation: string } & Sent;
	};
	/** Locks a person out or lets them in again, makes a new invitation, takes them away, or makes them an owner of all, or not. */
	'PATCH /people': {
		body: {
			readonly name: string;
			readonly do: 'lock' | 'unlock' | 'reset' | 'drop' | 'own' | 'disown';
			readonly mail?: string;
		};
		answer: { readonly invitation?: string } & Sent;
	};
	/** What was done beside edits, everywhere, the newest first. */
	'GET /trail': { query: TrailWanted; answer: readonly TrailLine[] };
	/** Who is what at a site. */
	'GET /sites/{site}/people': { answer: readonly PersonAt[] };
	/** Gives a person a role at a site, for all of it or an area; null takes it away. */
	'PUT /sites/{site}/people': {
		body: { readonly name: string; readonly role: Role | null; readonly area?: PageArea };
		answer: readonly PersonAt[];
	};
	/** The keys of machines; their secrets are not among what is kept of them. */
	'GET /sites/{site}/keys': { answer: readonly AccessKey[] };
	/** Makes a key; its secret is told this once. One that it takes the place of goes on for a week, so that none is without. */
	'POST /sites/{site}/keys': {
		body: {
			readonly name: string;
			readonly scopes: readonly Scope[];
			readonly ends?: string;
			/** @asType integer */
			readonly instead?: number;
		};
		answer: { readonly secret: string };
	};
	/** Takes a key away. */
	'DELETE /sites/{site}/keys': {
		body: {
			/** @asType integer */
			readonly id: number;
		};
		answer: readonly AccessKey[];
	};
	/** What was done beside edits at a site, the newest first. */
	'GET /sites/{site}/trail': { query: TrailWanted; answer: readonly TrailLine[] };

	/** Makes a site of where its content is, or reads the content of one again. */
	'POST /sites': {
		body: { readonly name: string; readonly base: string; readonly source: Source };
		takes: 'record and bytes';
		answer: Taken;
	};
	/** What a table would become: its columns, what each is taken for, the first rows and the oddest. Nothing is kept. */
	'POST /table': {
		body: { readonly base?: string } & Partial<TableSource>;
		takes: 'record and bytes';
		answer: TableLook;
	};

	/** Rows of the table of pages. Never waits for a job. */
	'GET /sites/{site}/grid': {
		query: GridWanted;
		answer: GridAnswer;
	};
	/** Writes cells of the table, all of them as one edit or none. */
	'POST /sites/{site}/cells': { body: { readonly cells: readonly CellWrite[] }; answer: Changed };
	/** Changes many pages as one edit. Going away stops it, and nothing is changed. */
	'POST /sites/{site}/batch': {
		body: { readonly pages: BatchPages; readonly action: BatchAction };
		lines: true;
		answer: Changed;
	};
	/** What a change of many pages would do, on some of them. */
	'POST /sites/{site}/batch/sample': {
		body: { readonly pages: BatchPages; readonly action: BatchAction };
		answer: BatchSample;
	};
	/** The table as CSV. */
	'GET /sites/{site}/csv': {
		query: Ordered & {
			/** Names of columns with commas between. */
			readonly columns?: string;
			/** Begins with a byte order mark. */
			readonly mark?: On;
		};
		media: 'text/csv';
	};
	/** The table as a workbook (.xlsx), whose cells are texts that spreadsheets leave as they are. */
	'GET /sites/{site}/workbook': {
		query: Ordered & {
			/** Names of columns with commas between. */
			readonly columns?: string;
		};
		media: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';
	};
	/** Reads a table back that was put out, as CSV or a workbook, and changed. Going away stops it, and nothing is changed. */
	'POST /sites/{site}/csv': {
		query: Rewritten;
		takes: 'bytes';
		lines: true;
		answer: { readonly edit?: number | undefined; readonly told: CsvTold };
	};
	/** What reading a table back would do. */
	'POST /sites/{site}/csv/comparison': { query: Rewritten; takes: 'bytes'; lines: true; answer: CsvTold };
	/** Filters of the table that have a name. */
	'GET /sites/{site}/filters': { answer: readonly NamedFilter[] };
	/** Keeps one under a name; one without a query is taken away. */
	'POST /sites/{site}/filters': {
		body: {
			/** @minLength 1 @maxLength 80 @pattern \S */
			readonly name: string;
			/** @maxLength 2000 */
			readonly query?: string;
		};
		answer: readonly NamedFilter[];
	};

	/** Pages by words of their path, title or description. */
	'GET /sites/{site}/pages': { query: { readonly find: string }; answer: { readonly pages: readonly ListedPage[] } };
	/** Adds a page, copies one, takes one away, or makes one the home page; several are one edit. Gives the path to look at then. */
	'POST /sites/{site}/pages': {
		body:
			| PageAction
			| {
					/** @maxItems 1000 @minItems 1 */
					readonly actions: readonly PageAction[];
			  };
		answer: Kept & { readonly path: string };
	};
	/** A page, with the pictures that it and its layers name. */
	'GET /sites/{site}/page': {
		query: { readonly path: string };
		answer: { readonly page: Page; readonly pictures: readonly Picture[] };
	};
	/** What would be lost, or lead nowhere, with a page. */
	'GET /sites/{site}/page/leading': { query: { readonly path: string }; answer: WhatLeads };
	/** Whose texts link to a page: goes over all texts. */
	'GET /sites/{site}/page/linking': { query: { readonly path: string }; answer: PagesLinking };
	/** The pages that are hardest on templates, of a type or of the whole site. */
	'GET /sites/{site}/hard': { query: { readonly type?: string }; answer: readonly HardPage[] };
	/** The pages that would be shared worst as the site is now. */
	'GET /sites/{site}/worst': { answer: WorstPages };

	/** Sets one rule in the working copy; 409 with the rule as it is now where someone else has changed it meanwhile. */
	'PUT /sites/{site}/rules': { body: RuleWrite; answer: Kept };
	/** Changes what a site, a type, a page or a picture is, beside its rules; 409 as with rules. */
	'PATCH /sites/{site}/settings': { body: SettingsWrite; answer: Kept };
	/** Adds, renames or takes away a content type, or renames a field of one. Gives the name to look at then. */
	'POST /sites/{site}/types': {
		body: TypeAction | { readonly name: string; readonly set?: string };
		answer: { readonly name: string };
	};
	/** What asks for a field: rules of every layer, and texts of its type's layout. */
	'GET /sites/{site}/types/uses': {
		query: { readonly type: string; readonly field: string };
		answer: { readonly uses: readonly FieldUse[] };
	};
	/** Which pages an edit would change, before it is kept. Going away stops it. */
	'POST /sites/{site}/reach': {
		body: RuleWrite | SettingsWrite | SetTaken;
		lines: true;
		answer: { readonly reach: Reach };
	};
	/** What edits of one tag would make of the pages that are hard on templates, of a type or of the whole site. */
	'POST /sites/{site}/tries': {
		body: { readonly edits: readonly RuleWrite[]; readonly type?: string };
		answer: readonly TriedPage[];
	};
	/** On how many pages the stretches of a template give way that says how long it may be. Going away stops it. */
	'POST /sites/{site}/given-way': { body: RuleWrite; lines: true; answer: GivenWay };
	/** A first template for a tag of a type, from its records; null where they say no more than what is built in. */
	'GET /sites/{site}/proposal': {
		query: { readonly type: string; readonly tag: string };
		answer: { readonly proposal: Proposal | null };
	};
	/** The record of edits, the newest first. */
	'GET /sites/{site}/edits': {
		query: {
			/** Goes on after the edit of this number. @asType integer */
			readonly before?: number | undefined;
			/** @asType integer @minimum 1 @maximum 200 */
			readonly limit?: number;
		};
		answer: {
			readonly revision: number;
			readonly edits: readonly RecordedEdit[];
			/** What would be taken back, and done again, now. */
			readonly next: { readonly back?: number | undefined; readonly again?: number | undefined };
		};
	};
	/** Takes an edit back, or does the one that was taken back last again. Going away stops it where it is asked for in lines. */
	'POST /sites/{site}/edits': {
		body: {
			/** The number of an edit, "last" or "again". */
			readonly takeBack: number | 'last' | 'again';
		} & Sure;
		lines: true;
		answer: Kept & { readonly taken: number };
	};
	/** All that is wrong or weak on a site, by kind, as it was counted last. */
	'GET /sites/{site}/findings': {
		query: {
			/** Waits a moment for the count that goes on. */
			readonly wait?: On;
		};
		answer: FindingsTold;
	};
	/** Sets a kind of finding aside with a reason, on one page or on all; or takes it up again. */
	'POST /sites/{site}/findings': {
		body: {
			/** @minLength 1 */
			readonly code: string;
			readonly tag?: string;
			readonly path?: string;
			readonly reason?: string;
			readonly takeUp?: boolean;
		};
		answer: Kept;
	};

	/** What of the working copy differs from the newest release. */
	'GET /sites/{site}/pending': { answer: Pending };
	/** What a release would send out now, thirty pages at a time. */
	'GET /sites/{site}/sheet': {
		query: {
			/** @asType integer @minimum 0 */
			readonly offset?: number;
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
		};
		answer: ProbeLook;
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

/** How far a work is: so many of so many, where it is known of how many; and what was done last, where that is told. */
export interface SoFar {
	readonly done: number;
	readonly all?: number;
	readonly last?: string;
}

/** What a change of many came to. */
interface Changed {
	/** Missing where nothing came out different. */
	readonly edit?: number | undefined;
	readonly revision?: number | undefined;
	readonly changed: number;
}

/** A method and a path of the contract. */
export type RouteName = keyof Contract;
/** What a route is asked with, is sent and answers; undefined where it has none. */
export type PartOf<K extends RouteName, P extends string> =
	Contract[K] extends Readonly<Record<P, infer T>> ? T : undefined;
