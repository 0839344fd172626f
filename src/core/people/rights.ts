import type { Page } from '../model';
import { ownOf } from '../own';

/** What can be done. Each right is asked for at a site; `own` of people, keys and the site itself. */
export const RIGHTS = ['read', 'edit', 'build', 'probe', 'release', 'own'] as const;
export type Right = (typeof RIGHTS)[number];

/** What a person is at a site, the one who may do most first. */
export const ROLES = ['owner', 'builder', 'editor', 'reviewer', 'reader'] as const;
export type Role = (typeof ROLES)[number];

const MAY: Readonly<Record<Role, readonly Right[]>> = {
	owner: RIGHTS,
	builder: ['read', 'edit', 'build', 'probe', 'release'],
	editor: ['read', 'edit', 'probe'],
	reviewer: ['read', 'probe', 'release'],
	reader: ['read']
};

/** Pages that a role is for, by any mix of these; what is not named leaves all in. */
export interface PageArea {
	/** Paths; `*` stands for any characters. */
	readonly paths?: readonly string[];
	readonly types?: readonly string[];
	readonly languages?: readonly string[];
}

/** A role at a site, with the pages that it is for. */
export interface SiteRole {
	readonly role: Role;
	readonly area: PageArea;
}

/** What a machine's key may do: some of the rights, or to let people of the site into its panel. */
export const SCOPES = ['read', 'edit', 'release', 'probe', 'panel'] as const;
export type Scope = (typeof SCOPES)[number];

/** Whoever does something: the one at this machine while there are no people, a person, a key, or nobody known. */
export type Actor =
	| { readonly kind: 'alone' }
	| {
			readonly kind: 'person';
			readonly id: number;
			readonly name: string;
			readonly isOwner: boolean;
			/** By the name of the site. */
			readonly roles: Readonly<Record<string, SiteRole>>;
			/** They came through a panel: nothing is done in their name but at its site. */
			readonly panel?: true;
	  }
	| { readonly kind: 'key'; readonly name: string; readonly site: string; readonly scopes: readonly Scope[] }
	| { readonly kind: 'nobody' };

export const ALONE: Actor = { kind: 'alone' };
export const NOBODY: Actor = { kind: 'nobody' };

/** What an actor is at a site; undefined for nothing. */
export function roleAt(actor: Actor, site: string): SiteRole | undefined {
	if (actor.kind === 'alone') return OWNER;
	if (actor.kind !== 'person') return undefined;
	if (actor.isOwner) return OWNER;
	return ownOf(actor.roles, site);
}
const OWNER: SiteRole = { role: 'owner', area: {} };

/** Whether an actor has a right at a site, somewhere in it; `editorsRelease` is what the site says of its editors. */
export function mayDo(actor: Actor, right: Right, site: string, editorsRelease = false): boolean {
	if (actor.kind === 'key') return actor.site === site && (actor.scopes as readonly Right[]).includes(right);
	const at = roleAt(actor, site);
	if (!at) return false;
	return MAY[at.role].includes(right) || (right === 'release' && at.role === 'editor' && editorsRelease);
}

/** Whether an actor may make sites and see to people everywhere. */
export const ownsAll = (actor: Actor): boolean => actor.kind === 'alone' || (actor.kind === 'person' && actor.isOwner);

/** Whether an actor owns a site, or all. */
export const ownsAny = (actor: Actor): boolean =>
	ownsAll(actor) || (actor.kind === 'person' && Object.values(actor.roles).some(({ role }) => role === 'owner'));

/** The roles that have a right, for those who are told who may. */
export const rolesWith = (right: Right, editorsRelease = false): Role[] =>
	ROLES.filter((role) => MAY[role].includes(right) || (right === 'release' && role === 'editor' && editorsRelease));

/** Whether an area leaves anything out. */
export const isWhole = ({ paths, types, languages }: PageArea): boolean => !paths && !types && !languages;

/** Whether a page lies in an area; `first` is the site's first language, which a page has that names none. */
export function inArea(
	{ paths, types, languages }: PageArea,
	page: Pick<Page, 'path' | 'type' | 'language'>,
	first: string
): boolean {
	if (types && !types.includes(page.type)) return false;
	const language = (page.language ?? first).toLowerCase();
	if (languages && !languages.some((one) => isLanguage(language, one.toLowerCase()))) return false;
	return !paths || paths.some((pattern) => fits(pattern, page.path));
}

const isLanguage = (language: string, wanted: string) => language === wanted || language.startsWith(`${wanted}-`);

/** Whether a path fits a pattern, in which `*` stands for any characters. Takes no longer than both are long. */
export function fits(pattern: string, path: string): boolean {
	const [first = '', ...rest] = pattern.split('*');
	if (rest.length === 0) return path === pattern;
	if (!path.startsWith(first)) return false;
	const last = rest.pop() as string;
	let at = first.length;
	for (const part of rest) {
		const found = path.indexOf(part, at);
		if (found < 0) return false;
		at = found + part.length;
	}
	return path.length - last.length >= at && path.endsWith(last);
}
