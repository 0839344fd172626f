import * as api from '$ui/api';

/** Takes edits of the working copy back, or does them again; each is an edit that every tab sees. */
export class History {
	constructor(
		private readonly siteName: string,
		/** The working copy was changed. */
		private readonly changed: () => Promise<void>,
		/** Takes the sentence of a refusal. */
		private readonly say: (why: string) => void
	) {}

	undo = () => this.sayIfRefused('last');
	redo = () => this.sayIfRefused('again');
	private async sayIfRefused(which: 'last' | 'again') {
		const why = await this.takeBack(which);
		if (why !== undefined) this.say(why);
	}

	/** Takes an edit back, by its number or by its place in the record; gives the sentence of a refusal. */
	async takeBack(which: 'last' | 'again' | number): Promise<string | undefined> {
		const result = await api.takeBack(this.siteName, which);
		if (api.isRefused(result)) return result.refused;
		await this.changed();
		return undefined;
	}
}
