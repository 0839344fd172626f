import { mayDo, ownsAll } from '$core';
import { canMail } from '$server/comingIn/mail';
import type { PageServerLoad } from './$types';

/** So many lines of the trail are shown. */
const SHOWN = 40;

/** Who may come in, what each is where, the keys of machines, the addresses that are told, the editors that show the panel, and what was done beside edits: of the sites that one owns. */
export const load: PageServerLoad = ({ locals: { store, who } }) => {
	const sites = store.working.sites.names().filter(({ name }) => mayDo(who, 'own', name));
	const names = new Set(sites.map(({ name }) => name));
	const isOurs = ownsAll(who);
	const people = store.people.listed().map(({ roles, ...person }) => ({
		...person,
		roles: Object.fromEntries(Object.entries(roles).filter(([site]) => names.has(site)))
	}));
	return {
		ownsAll: isOurs,
		canMail: canMail(),
		// Who owns one site is told of those who are something there.
		people: isOurs ? people : people.filter(({ roles }) => Object.keys(roles).length > 0),
		sites: sites.map(({ name }) => name),
		keys: sites.map(({ id, name }) => ({ site: name, keys: store.people.keysAt(id) })),
		hooks: sites.map(({ id, name }) => ({ site: name, hooks: store.hooks.at(id) })),
		panels: sites.map(({ id, name }) => ({ site: name, origins: store.people.panel.originsAt(id) })),
		trail: isOurs
			? store.trail.newest(undefined, SHOWN)
			: sites.flatMap(({ name }) => store.trail.newest(name, SHOWN)).sort((a, b) => b.id - a.id)
	};
};
