import { isRefused, type Refused } from '$ui/client';
import { refresh } from '$ui/parts/refresh';

/** What a part of the room asks for: done, the room is read anew; refused, that is told. */
export class Asking {
	refused = $state('');

	/** What came of it; undefined where it was refused. */
	async done<T extends object>(asking: Promise<T>): Promise<Exclude<T, Refused> | undefined> {
		const answer = await asking;
		this.refused = isRefused(answer) ? answer.refused : '';
		if (isRefused(answer)) return undefined;
		await refresh();
		return answer as Exclude<T, Refused>;
	}
}
