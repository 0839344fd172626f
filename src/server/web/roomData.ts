import { error } from '@sveltejs/kit';
import { UserError } from '../errors';

/** What a room is filled with; what is not there is told as a page that says so. */
export function found<T>(read: () => T): T {
	try {
		return read();
	} catch (problem) {
		if (problem instanceof UserError) error(404, problem.message);
		throw problem;
	}
}
