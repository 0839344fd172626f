import { invalidateAll } from '$app/navigation';
import { navigating } from '$app/state';

/**
 * Reads a room's data anew. A link that is being followed comes first: to read anew in the midst of it would undo the
 * click. `isWanted` is asked then, as the room may be left.
 */
export async function refresh(isWanted: () => boolean = () => true) {
	let followed: Promise<void> | undefined;
	while (navigating.complete && navigating.complete !== followed) {
		followed = navigating.complete;
		await followed.catch(() => undefined);
	}
	if (isWanted()) await invalidateAll();
}
