import { dev } from '$app/environment';
import { error } from '@sveltejs/kit';
import type { PageServerLoad } from './$types';

/** The parts of the interface in every state: while it is developed and tested, and for nobody else. */
export const load: PageServerLoad = () => {
	if (!dev && !process.env.KEPHALON_PARTS) error(404, 'There is no such page.');
};
