import type { PageArea, Scope } from '$core';
import type { AccessKey } from '$server/store/people/people';
import type { TrailLine } from '$server/store/people/trail';

type Told = Pick<TrailLine, 'who' | 'what' | 'site' | 'data'>;

/** What an area leaves in, behind the name of a site; nothing for all of it. */
export function areaInWords({ paths, types, languages }: PageArea): string {
	const parts = [
		...(paths ? [`paths ${paths.join(', ')}`] : []),
		...(types ? [`types ${types.join(', ')}`] : []),
		...(languages ? [`languages ${languages.join(', ')}`] : [])
	];
	return parts.length > 0 ? `, only ${parts.join('; ')}` : '';
}

/** A list as it is typed: by commas and spaces. */
export const listIn = (text: string): string[] => text.split(/[\s,]+/).filter(Boolean);

export const momentInWords = (iso: string): string =>
	new Date(iso).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' });

/** What was done, in words, by its code. */
const DONE: ReadonlyMap<string, string> = new Map([
	['signed-in', 'signed in'],
	['signed-out', 'signed out'],
	['sign-in-failed', 'a sign-in failed'],
	['signed-on', 'signed on'],
	['sign-on-failed', 'a sign-on failed'],
	['sign-on-bound', 'is known to single sign-on as'],
	['codes-made', 'made recovery codes'],
	['code-taken', 'took a recovery code'],
	['invitation-taken', 'took an invitation'],
	['person-added', 'added'],
	['person-locked', 'locked out'],
	['person-unlocked', 'let in again'],
	['person-reset', 'invited anew'],
	['person-dropped', 'took away'],
	['owner-set', 'said who owns every site:'],
	['role-set', 'gave a role:'],
	['password-changed', 'changed their password'],
	['passkey-added', 'made a passkey:'],
	['passkey-dropped', 'took a passkey away'],
	['sessions-ended', 'ended their other sessions'],
	['key-made', 'made a key:'],
	['key-dropped', 'took a key away:'],
	['key-used', 'was used'],
	['hook-made', 'lets an address be told:'],
	['hook-dropped', 'took a webhook away:'],
	['hook-on', 'switched a webhook on:'],
	['hook-off', 'switched a webhook off:'],
	['panel-origins', 'said whose pages may show the panel:'],
	['panel-opened', 'was let into the panel at'],
	['released', 'made a release:'],
	['rolled-back', 'went back to a release:'],
	['exported', 'exported'],
	['trail-kept', 'said how long this is kept:']
]);

/** A line of the trail in a sentence. */
export function lineInWords({ who, what, site, data }: Told): string {
	const { name, role, isOwner, address, area, ...rest } = data;
	const where = area ? areaInWords(area) : '';
	const more = [
		...(typeof name === 'string' ? [name] : []),
		...(role === null ? ['nothing any more'] : typeof role === 'string' ? [role] : []),
		...(what === 'owner-set' ? [isOwner === true ? 'yes' : 'not any more'] : []),
		...(typeof address === 'string' && address !== '' ? [`from ${address}`] : []),
		...Object.entries(rest).flatMap(([key, value]) => {
			const said =
				typeof value === 'string' ? value : Array.isArray(value) ? value.join(' and ') : JSON.stringify(value);
			return said === 'null' || said === '{}' ? [] : [`${key} ${said}`];
		})
	];
	return `${who} ${DONE.get(what) ?? what} ${more.join(', ')}${where}${site === undefined ? '' : ` at ${site}`}`.trim();
}

/** What a key may do, in words. */
export const SCOPE_WORDS: Readonly<Record<Scope, string>> = {
	read: 'read heads',
	edit: 'edit pages',
	release: 'release',
	probe: 'look as readers do',
	panel: 'let people into the panel'
};

/** What a key may do, until when, and whether anything uses it; `now` in milliseconds. */
export function keyInWords(
	{ scopes, ends, used, maker }: Pick<AccessKey, 'scopes' | 'ends' | 'used' | 'maker'>,
	now: number
): string {
	const on = (moment: number) => new Date(moment).toLocaleDateString('en-GB', { dateStyle: 'medium' });
	return [
		`may ${scopes.map((scope) => SCOPE_WORDS[scope]).join(', ')}`,
		ends === undefined ? 'without an end' : ends <= now ? `ended on ${on(ends)}` : `until ${on(ends)}`,
		used === undefined ? 'never used' : `used on ${on(used)}`,
		`made by ${maker}`
	].join('; ');
}

/** A browser and its system, out of what it says of itself; as it says it where neither is known. */
export function agentInWords(agent: string): string {
	const named = (names: readonly (readonly [sign: string, name: string])[]) =>
		names.find(([sign]) => agent.includes(sign))?.[1];
	const browser = named(BROWSERS);
	const system = named(SYSTEMS);
	if (!browser && !system) return agent.slice(0, 60) || 'An unnamed browser';
	return [browser ?? 'A browser', ...(system ? [`on ${system}`] : [])].join(' ');
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
