import { weightOf, type Edit, type GivenWay, type TriedPage } from '$core';
import { call, follow, isRefused } from '$ui/client';

/** Waits this long (milliseconds) after the last keystroke before the other template is tried. */
const PAUSE = 300;

/** So many paths of live data are tried at once. */
const MOST_LIVE = 10;

/** Templates of one tag held against each other on the pages that are hard on them: nothing is kept. */
export class Tries {
	/** A second template; '' for none. */
	other = $state('');
	/** The hard pages; undefined until they were looked at. */
	pages = $state.raw<readonly TriedPage[] | undefined>();
	/** On how many pages stretches give way; undefined until that was counted, and where no room is said. */
	given = $state.raw<GivenWay | undefined>();
	/** How many pages were counted so far, and of how many. */
	counting = $state.raw<{ readonly done: number; readonly all: number } | undefined>();
	refused = $state.raw<string | undefined>();
	/** The pages shown are those of what is written. */
	isCurrent = $state(false);
	/** On how many hard pages each comes out better, by what is wrong with it there. */
	readonly score = $derived.by(() => {
		const scores = { first: 0, second: 0, alike: 0 };
		for (const page of this.pages ?? []) if (page.values[1]) scores[betterOf(page)]++;
		return scores;
	});
	/** Paths of live data that it is tried on, too. */
	private live: readonly string[] = [];
	private asked = 0;
	private waiting: ReturnType<typeof setTimeout> | undefined;
	private readonly ended = new AbortController();

	constructor(
		private readonly site: string,
		private readonly type: string,
		private readonly template: string,
		private readonly editOf: (template: string) => Edit
	) {}

	/** Looks at the hard pages with the first, and counts where it gives way. */
	async begin() {
		await Promise.all([this.look(), this.count()]);
	}

	/** Takes a keystroke in the field of the second. */
	write(text: string) {
		this.other = text;
		this.isCurrent = false;
		clearTimeout(this.waiting);
		this.waiting = setTimeout(() => void this.look(), PAUSE);
	}

	/** Tries it on a page of live data, too, by its path. */
	also(path: string) {
		this.live = [path, ...this.live.filter((one) => one !== path)].slice(0, MOST_LIVE);
		this.isCurrent = false;
		void this.look();
	}

	/** Ends what is under way. */
	end() {
		clearTimeout(this.waiting);
		this.ended.abort();
	}

	private async look() {
		const number = ++this.asked;
		const edits = [this.template, ...(this.other === '' ? [] : [this.other])].map(this.editOf);
		const found = await call('POST /sites/{site}/tries', {
			...{ site: this.site, body: { edits: edits.map(asWrite), type: this.type, live: this.live } },
			signal: this.ended.signal
		});
		// What was written meanwhile has been asked for since.
		if (number !== this.asked || this.ended.signal.aborted) return;
		this.refused = isRefused(found) ? found.refused : undefined;
		this.pages = isRefused(found) ? undefined : found;
		this.isCurrent = !isRefused(found);
	}

	private async count() {
		if (!/\{\s*fit\b/.test(this.template)) return;
		const found = await follow(
			'POST /sites/{site}/given-way',
			{ site: this.site, body: asWrite(this.editOf(this.template)) },
			{ signal: this.ended.signal, progress: (done, all) => (this.counting = { done, all }) },
			{ stopped: '' }
		);
		this.counting = undefined;
		if (this.ended.signal.aborted) return;
		if (isRefused(found)) this.refused = found.refused;
		else this.given = found;
	}
}

const asWrite = ({ body, ...edit }: Edit) => ({ ...edit, body: body as Readonly<Record<string, unknown>> | null });

/** Which of two comes out better on a page: the one with less wrong. */
export function betterOf({ values: [first, second] }: TriedPage): 'first' | 'second' | 'alike' {
	if (!first || !second) return 'alike';
	const [one, other] = [weightOf(first.findings), weightOf(second.findings)];
	return one === other ? 'alike' : one < other ? 'first' : 'second';
}
