import type { Actor, PageArea, Role, Scope, SiteRole } from '$core';
import type { Sent } from '../../comingIn/mail';
import type { AccessKey } from '../../store/people/people';
import type { OpenedPanel } from '../../people/panel';
import type { HookEvent, HookMessage, Webhook } from '../../store/hooks/hooks';
import type { TrailLine } from '../../store/people/trail';

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

/** A key of a machine; moments as RFC 3339. */
interface KeyTold extends Omit<AccessKey, 'made' | 'ends' | 'used'> {
	readonly made: string;
	readonly ends?: string;
	readonly used?: string;
}
/** An address that is told; moments as RFC 3339. */
interface HookTold extends Omit<Webhook, 'made'> {
	readonly made: string;
}
/** A message to an address; moments as RFC 3339. */
export interface MessageTold extends Omit<HookMessage, 'made' | 'due'> {
	readonly made: string;
	readonly due?: string;
}

interface TrailWanted {
	/** Goes on after the line of this number. @asType integer */
	readonly before?: number | undefined;
	/** @asType integer @minimum 1 @maximum 500 */
	readonly limit?: number;
}

/** People, their sessions and roles, the keys of machines, and the trail. */
export interface PeopleRoutes {
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
	/** The addresses that are told what happens at a site; their secrets are not among what is told of them. */
	'GET /sites/{site}/webhooks': { answer: readonly HookTold[] };
	/** Adds an address that is told; its messages are signed (Standard Webhooks) with a secret that is told this once. */
	'POST /sites/{site}/webhooks': {
		body: { readonly address: string; readonly events: readonly HookEvent[]; readonly inside?: boolean };
		answer: { readonly id: number; readonly secret: string };
	};
	/** Sends nothing more to an address, or again. */
	'PATCH /sites/{site}/webhooks': {
		body: {
			/** @asType integer */
			readonly id: number;
			readonly on: boolean;
		};
		answer: readonly HookTold[];
	};
	/** Takes an address away, with what it was told. */
	'DELETE /sites/{site}/webhooks': {
		body: {
			/** @asType integer */
			readonly id: number;
		};
		answer: readonly HookTold[];
	};
	/** What an address was told, the newest first, with each try. */
	'GET /sites/{site}/webhooks/messages': {
		query: {
			/** @asType integer */
			readonly webhook: number;
		};
		answer: readonly MessageTold[];
	};
	/** Sends a message again, or, where an address is named instead, a first one to try it. */
	'POST /sites/{site}/webhooks/messages': {
		body: {
			readonly message?: string;
			/** @asType integer */
			readonly webhook?: number;
		};
		answer: { readonly sent: true };
	};
	/** Who is what at a site. */
	'GET /sites/{site}/people': { answer: readonly PersonAt[] };
	/** Gives a person a role at a site, for all of it or an area; null takes it away. */
	'PUT /sites/{site}/people': {
		body: { readonly name: string; readonly role: Role | null; readonly area?: PageArea };
		answer: readonly PersonAt[];
	};
	/** The keys of machines; their secrets are not among what is kept of them. */
	'GET /sites/{site}/keys': { answer: readonly KeyTold[] };
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
		answer: readonly KeyTold[];
	};
	/** The origins whose pages may show the panel of the site. */
	'GET /sites/{site}/panel': { answer: { readonly origins: readonly string[] } };
	/** Says which may, in the place of those before. */
	'PUT /sites/{site}/panel': {
		body: { readonly origins: readonly string[] };
		answer: { readonly origins: readonly string[] };
	};
	/**
	 * Lets a panel in for 15 minutes: as oneself, or, with a key that may, at one page as the person who is named. With what let it in
	 * before it is let in again, at the same, for 8 hours in all.
	 */
	'POST /sites/{site}/panel/tokens': {
		body: { readonly page?: string; readonly person?: string };
		answer: OpenedPanel;
	};
	/** What was done beside edits at a site, the newest first. */
	'GET /sites/{site}/trail': { query: TrailWanted; answer: readonly TrailLine[] };
}
