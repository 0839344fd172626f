import { addPerson, setRole, takeInvitation } from '$server/people/accounts';
import type { PageArea, Role } from '$core';
import type { Store } from '$server/store/store';

/** The password of all of them; they are made up, and so is what they look after. */
export const DEMO_PASSWORD = 'seven slow gannets';

interface DemoPerson {
	readonly name: string;
	/** Without one, owner of every site. */
	readonly role?: Role;
	readonly area?: PageArea;
	readonly about: string;
}

/** Who looks after the demo site, where there are people. */
export const DEMO_PEOPLE: readonly DemoPerson[] = [
	{ name: 'Ada Marrow', about: 'owns every site' },
	{ name: 'Ben Holt', role: 'builder', about: 'builds: the site, types and templates' },
	{
		name: 'Cleo Sands',
		role: 'editor',
		area: { paths: ['/walks/*'] },
		about: 'edits the walks, and looks at the rest'
	},
	{ name: 'Dov Reed', role: 'reviewer', about: 'reads what would go out, and releases' }
];

/** Who writes in the editor beside the panel. */
export const DEMO_EDITOR = 'Cleo Sands';

/** Lets them in, each with the password of the demo. */
export async function letIn(store: Store, site: string) {
	if (store.people.exist()) return;
	for (const { name, role, area } of DEMO_PEOPLE) {
		const { secret } = addPerson(store, name);
		await takeInvitation(store, secret, DEMO_PASSWORD, { address: '', agent: 'the demo' });
		if (role) setRole(store, site, name, role, area);
	}
}
