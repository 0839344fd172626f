import { wording } from '$ui/words/en/people';
import { spoken } from '$ui/words/speaking';
import type { PageArea, Scope } from '$core';
import type { AccessKey } from '$server/store/people/people';
import type { TrailLine } from '$server/store/people/trail';

type Told = Pick<TrailLine, 'who' | 'what' | 'site' | 'data'>;

/** What an area leaves in, behind the name of a site; nothing for all of it. */
export function areaInWords({ paths, types, languages }: PageArea): string {
	const parts = [
		...(paths ? [wording.onlyPaths(paths.join(', '))] : []),
		...(types ? [wording.onlyTypes(types.join(', '))] : []),
		...(languages ? [wording.onlyLanguages(languages.join(', '))] : [])
	];
	return parts.length > 0 ? wording.only(parts.join('; ')) : '';
}

/** A list as it is typed: by commas and spaces. */
export const listIn = (text: string): string[] => text.split(/[\s,]+/).filter(Boolean);

/** What was done, in words, by its code. */
const done = (): ReadonlyMap<string, string> =>
	new Map([
		['signed-in', wording.signedIn],
		['signed-out', wording.signedOut],
		['sign-in-failed', wording.aSignInFailed],
		['signed-on', wording.signedOn],
		['sign-on-failed', wording.aSignOnFailed],
		['sign-on-bound', wording.isKnownToSingleSignOnAs],
		['codes-made', wording.madeRecoveryCodes],
		['code-taken', wording.tookARecoveryCode],
		['invitation-taken', wording.tookAnInvitation],
		['person-added', wording.added],
		['person-locked', wording.lockedOut],
		['person-unlocked', wording.letInAgain2],
		['person-reset', wording.invitedAnew],
		['person-dropped', wording.tookAway],
		['owner-set', wording.saidWhoOwnsEverySite],
		['role-set', wording.gaveARole],
		['password-changed', wording.changedTheirPassword],
		['passkey-added', wording.madeAPasskey],
		['passkey-dropped', wording.tookAPasskeyAway],
		['sessions-ended', wording.endedTheirOtherSessions],
		['key-made', wording.madeAKey],
		['key-dropped', wording.tookAKeyAway],
		['key-used', wording.wasUsed],
		['hook-made', wording.letsAnAddressBeTold],
		['hook-dropped', wording.tookAWebhookAway],
		['hook-on', wording.switchedAWebhookOn],
		['hook-off', wording.switchedAWebhookOff],
		['panel-origins', wording.saidWhosePagesMayShowThe],
		['panel-opened', wording.wasLetIntoThePanelAt],
		['released', wording.madeARelease],
		['rolled-back', wording.wentBackToARelease],
		['exported', wording.exported],
		['trail-kept', wording.saidHowLongThisIsKept]
	]);

/** A line of the trail in a sentence. */
export function lineInWords({ who, what, site, data }: Told): string {
	const { name, role, isOwner, address, area, ...rest } = data;
	const where = area ? areaInWords(area) : '';
	const more = [
		...(typeof name === 'string' ? [name] : []),
		...(role === null ? [wording.nothingAnyMore] : typeof role === 'string' ? [role] : []),
		...(what === 'owner-set' ? [isOwner === true ? wording.yes : wording.notAnyMore] : []),
		...(typeof address === 'string' && address !== '' ? [wording.from(address)] : []),
		...Object.entries(rest).flatMap(([key, value]) => {
			const said =
				typeof value === 'string' ? value : Array.isArray(value) ? value.join(wording.and) : JSON.stringify(value);
			return said === 'null' || said === '{}' ? [] : [`${key} ${said}`];
		})
	];
	return `${who} ${done().get(what) ?? what} ${more.join(', ')}${where}${site === undefined ? '' : wording.at(site)}`.trim();
}

/** What a key may do, in words. */
export const SCOPE_WORDS: Readonly<Record<Scope, string>> = {
	get read() {
		return wording.readHeads;
	},
	get edit() {
		return wording.editPages;
	},
	get release() {
		return wording.release;
	},
	get probe() {
		return wording.lookAsReadersDo;
	},
	get panel() {
		return wording.letPeopleIntoThePanel;
	}
};

/** What a key may do, until when, and whether anything uses it; `now` in milliseconds. */
export function keyInWords(
	{ scopes, ends, used, maker }: Pick<AccessKey, 'scopes' | 'ends' | 'used' | 'maker'>,
	now: number
): string {
	const on = (moment: number) => new Date(moment).toLocaleDateString(spoken(), { dateStyle: 'medium' });
	return [
		wording.may(scopes.map((scope) => SCOPE_WORDS[scope]).join(', ')),
		ends === undefined ? wording.withoutAnEnd : ends <= now ? wording.endedOn(on(ends)) : wording.until(on(ends)),
		used === undefined ? wording.neverUsed : wording.usedOn(on(used)),
		wording.madeBy(maker)
	].join('; ');
}

/** A browser and its system, out of what it says of itself; as it says it where neither is known. */
export function agentInWords(agent: string): string {
	const named = (names: readonly (readonly [sign: string, name: string])[]) =>
		names.find(([sign]) => agent.includes(sign))?.[1];
	const browser = named(BROWSERS);
	const system = named(SYSTEMS);
	if (!browser && !system) return agent.slice(0, 60) || wording.anUnnamedBrowser;
	return [browser ?? wording.aBrowser, ...(system ? [wording.on(system)] : [])].join(' ');
}
/** Each says the names of those before it, too. */
const BROWSERS = [
	['Firefox/', 'Firefox'],
	['Edg/', 'Edge'],
	['OPR/', 'Opera'],
	['Chrome/', 'Chromium'],
	['Safari/', 'Safari']
] as const;
const SYSTEMS = [
	['Windows', 'Windows'],
	['Android', 'Android'],
	['iPhone', 'iOS'],
	['iPad', 'iPadOS'],
	['Mac OS X', 'macOS'],
	['Linux', 'Linux']
] as const;
