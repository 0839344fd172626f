import type { Actor } from '$core';
import {
	addPerson,
	changePassword,
	dropPerson,
	endOthers,
	invitedBy,
	linkOf,
	lockPerson,
	resetPerson,
	sessionsOf,
	setOwner,
	setRole,
	signIn,
	signOut,
	takeInvitation
} from '../../people/accounts';
import { addHook, dropHook, sendAgain, turnHook } from '../../hooks/webhooks';
import { addKey, dropKey } from '../../people/keys';
import { openPanel, setOrigins } from '../../people/panel';
import { credentialsIn, whoIs } from '../../people/who';
import { refuse, UserError } from '../../errors';
import { runJob } from '../../jobs/run';
import { log } from '../../log';
import { note } from '../../people/note';
import { refuseUnsendable, sendInvitation } from '../../comingIn/mail';
import { makeCodes, takeCode } from '../../people/recovery';
import { beginSignOn, endSignOn, leaveAddress } from '../../comingIn/signOn';
import {
	askForAny,
	askForPasskey,
	changePasskey,
	keepPasskey,
	passkeysOf,
	signInByPasskey
} from '../../people/passkeys';
import { patiently } from '../../store/opening/patiently';
import type { Store } from '../../store/store';
import type { Rows } from '../route';

/** So many lines of the trail are listed where nobody says how many. */
const USUAL_LINES = 100;

/** People, their sessions and roles, the keys of machines, and what was done beside edits. */
export const PEOPLE = {
	'GET /me': ({ who }) => told(who),

	'POST /session': async ({ store, body: { name, password }, door }) => {
		const session = await signIn(store, name, password, door.from);
		door.open(session);
		return told(whoIs(store, { session }));
	},

	'DELETE /session': async ({ store, door }) => {
		const { session } = door;
		const leave = session === undefined ? undefined : await leaveAddress(store, session, door.origin);
		if (session !== undefined) await patiently(() => signOut(store, session));
		door.close();
		return { ...told(whoIs(store, {})), ...(leave !== undefined && { leave }) };
	},

	'GET /me/sessions': ({ store, who, door }) => sessionsOf(store, who, door.session),

	'DELETE /me/sessions': async ({ store, who, door }) => {
		await patiently(() => endOthers(store, who, door.session));
		return sessionsOf(store, who, door.session);
	},

	'GET /me/passkeys': ({ store }) => passkeysOf(store),

	'POST /me/passkeys/begun': ({ store, door }) => askForPasskey(store, door),

	'POST /me/passkeys': async ({ store, body, door }) => {
		await keepPasskey(store, door, body);
		return passkeysOf(store);
	},

	'PATCH /me/passkeys': async ({ store, body: { id, name } }) => {
		await patiently(() => changePasskey(store, id, name));
		return passkeysOf(store);
	},

	'POST /session/passkey/begun': ({ store, door }) => askForAny(store, door),

	'POST /session/passkey': async ({ store, body, door }) => {
		const session = await signInByPasskey(store, door, body, door.from);
		door.open(session);
		return told(whoIs(store, { session }));
	},

	'POST /session/sign-on': async ({ store, body: { to = '/' }, door }) => {
		const { address, state } = await beginSignOn(store, door.origin, pathIn(to));
		door.hold(state);
		return { address };
	},

	'GET /session/sign-on/back': async ({ store, query, door, who }) => {
		try {
			const { session, to } = await endSignOn(store, { held: door.held, query, origin: door.origin, from: door.from });
			door.open(session);
			return ledTo(to);
		} catch (error) {
			const refused = error instanceof UserError ? error : refuse('failed');
			if (refused.code === 'failed') log.error(error);
			// What nobody began says nothing of anybody: it fills no trail.
			else if (refused.code !== 'sign-on-late') {
				log.warn(refused.message);
				await patiently(() =>
					note(store, 'sign-on-failed', { why: refused.code, address: door.from.address }, undefined, 'nobody')
				);
			}
			const where = who.kind === 'person' ? '/account' : '/sign-in';
			return ledTo(`${where}?${new URLSearchParams({ refused: refused.code, ...nameIn(refused.data) })}`);
		}
	},

	'POST /session/recovery': async ({ store, body: { name, code }, door }) => ({
		invitation: await takeCode(store, name, code, door.from.address)
	}),

	'GET /me/recovery': ({ store, who }) => ({ left: who.kind === 'person' ? store.people.countCodes(who.id) : 0 }),

	'POST /me/recovery': async ({ store, body: { password }, door }) => ({
		codes: await makeCodes(store, password, door.from.address)
	}),

	'PUT /me/password': async ({ store, who, body: { old, password }, door }) => {
		await changePassword(store, door.session, old, password, door.from.address);
		return told(who);
	},

	'POST /invitations': async ({ store, body: { token, password }, door }) => {
		const name = invitedBy(store, token);
		if (name === undefined) throw refuse('invitation-over');
		if (password !== undefined) door.open(await takeInvitation(store, token, password, door.from));
		return { name };
	},

	'GET /people': ({ store }) => store.people.listed(),

	'POST /people': async ({ store, body: { name, isOwner, mail }, door }) => {
		refuseUnsendable(mail);
		const { secret } = await patiently(() => addPerson(store, name, isOwner));
		return { invitation: secret, ...(await sendInvitation(mail, name, linkOf(secret, door.origin))) };
	},

	'PATCH /people': async ({ store, body: { name, do: what, mail }, door }) => {
		refuseUnsendable(what === 'reset' ? mail : undefined);
		const invitation = await patiently(() => {
			switch (what) {
				case 'lock':
				case 'unlock':
					return lockPerson(store, name, what === 'lock');
				case 'own':
				case 'disown':
					return setOwner(store, name, what === 'own');
				case 'drop':
					return dropPerson(store, name);
				case 'reset':
					return resetPerson(store, name);
			}
		});
		if (typeof invitation !== 'string') return {};
		return { invitation, ...(await sendInvitation(mail, name, linkOf(invitation, door.origin))) };
	},

	'GET /trail': ({ store, query: { before, limit = USUAL_LINES } }) => store.trail.newest(undefined, limit, before),

	'GET /sites/{site}/people': ({ store, stored }) => peopleAt(store, stored.id),

	'PUT /sites/{site}/people': async ({ store, site, stored, body: { name, role, area } }) => {
		await patiently(() => setRole(store, site, name, role ?? undefined, area));
		return peopleAt(store, stored.id);
	},

	'GET /sites/{site}/keys': ({ store, stored }) => keysAt(store, stored.id),

	'POST /sites/{site}/keys': async ({ store, site, body }) => ({
		secret: await patiently(() => addKey(store, site, body))
	}),

	'DELETE /sites/{site}/keys': async ({ store, site, stored, body: { id } }) => {
		await patiently(() => dropKey(store, site, id));
		return keysAt(store, stored.id);
	},

	'GET /sites/{site}/webhooks': ({ store, stored }) => hooksAt(store, stored.id),

	'POST /sites/{site}/webhooks': async ({ store, site, body }) => {
		const made = await patiently(() => addHook(store, site, body));
		// How many there are now: what is more later on is told.
		if (body.events.includes('findings.grown')) await runJob('grown', { db: store.file, site });
		return made;
	},

	'PATCH /sites/{site}/webhooks': async ({ store, site, stored, body: { id, on } }) => {
		await patiently(() => turnHook(store, site, id, on));
		return hooksAt(store, stored.id);
	},

	'DELETE /sites/{site}/webhooks': async ({ store, site, stored, body: { id } }) => {
		await patiently(() => dropHook(store, site, id));
		return hooksAt(store, stored.id);
	},

	'GET /sites/{site}/webhooks/messages': ({ store, stored, query: { webhook } }) =>
		store.hooks.messages(stored.id, webhook, USUAL_LINES).map(({ made, due, ...message }) => ({
			...message,
			made: moment(made),
			...(due !== undefined && { due: moment(due) })
		})),

	'POST /sites/{site}/webhooks/messages': async ({ store, site, body }) => {
		await patiently(() => sendAgain(store, site, body));
		return { sent: true };
	},

	'GET /sites/{site}/panel': ({ store, stored }) => ({ origins: store.people.panel.originsAt(stored.id) }),

	'PUT /sites/{site}/panel': async ({ store, site, body: { origins } }) => ({
		origins: await patiently(() => setOrigins(store, site, origins))
	}),

	'POST /sites/{site}/panel/tokens': ({ store, stored, who, headers, body }) =>
		patiently(() =>
			openPanel(store, stored, { ...body, who, old: credentialsIn(undefined, headers.get('authorization')).key })
		),

	'GET /sites/{site}/trail': ({ store, site, query: { before, limit = USUAL_LINES } }) =>
		store.trail.newest(site, limit, before)
} satisfies Rows;

const moment = (at: number) => new Date(at).toISOString();

const keysAt = (store: Store, site: number) =>
	store.people.keysAt(site).map(({ made, ends, used, ...key }) => ({
		...key,
		made: moment(made),
		...(ends !== undefined && { ends: moment(ends) }),
		...(used !== undefined && { used: moment(used) })
	}));
const hooksAt = (store: Store, site: number) =>
	store.hooks.at(site).map(({ made, ...hook }) => ({ ...hook, made: moment(made) }));

/** Someone, as they are told of themselves. */
function told(who: Actor) {
	const { kind } = who;
	if (kind === 'person') return { kind, name: who.name, isOwner: who.isOwner, roles: who.roles };
	return { kind, ...(kind === 'key' && { name: who.name }), isOwner: kind === 'alone', roles: {} };
}

const peopleAt = (store: Store, site: number) =>
	store.people.rolesAt(site).map(({ name, role, area, isLocked }) => ({ name, role, area, isLocked }));

/** A way within the application; anything else is the beginning of it. */
const pathIn = (to: string) => (/^\/(?![/\\])/.test(to) && to.length < 2000 ? to : '/');

/** Leads a browser on that came from elsewhere. */
const ledTo = (location: string) =>
	new Response(null, { status: 303, headers: { location, 'content-type': 'text/html' } });

/** What a page can tell of a refusal, beside its code. */
const nameIn = (data: unknown): { name?: string } => {
	const { name } = (data ?? {}) as { name?: unknown };
	return typeof name === 'string' ? { name } : {};
};
