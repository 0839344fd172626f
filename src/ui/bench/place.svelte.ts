import { afterNavigate, beforeNavigate, pushState, replaceState } from '$app/navigation';
import { page as place } from '$app/state';
import { untrack } from 'svelte';
import { benchAt } from '$ui/places/rooms';
import { rememberPlace } from '$ui/places/place';
import { PANELS, type Bench } from '$ui/workspace/bench.svelte';

const VIEWS = ['tags', 'markup', 'cards', 'share'] as const;
export type View = (typeof VIEWS)[number];

/** Places passed through faster than this (milliseconds) are not gone back to. */
const STAY = 700;

/** What of the bench is in view, as its address says it: page, tag, view and panel. Made while the room is. */
export class BenchPlace {
	view = $state<View>('tags');
	private since = 0;
	private isReady = false;

	constructor(
		private readonly bench: Bench,
		private readonly path: () => string
	) {
		untrack(() => this.read(place.url));
		$effect(() => {
			const wanted = this.address;
			untrack(() => this.follow(wanted));
		});
		// What is in view is said by the address that one goes to, not the other way round.
		beforeNavigate(({ complete }) => {
			this.isReady = false;
			const again = () => (this.isReady = true);
			complete.then(again, again);
		});
		afterNavigate(() => {
			this.isReady = true;
			this.since = Date.now();
			// Going back after a reload gives the address of the page that was loaded, not the one that was pushed.
			this.read(new URL(location.href));
		});
	}

	readonly address = $derived.by(() => {
		const { tag, panel, siteName } = this.bench;
		const view = this.view === 'tags' ? '' : `&view=${this.view}`;
		return `${benchAt(siteName, this.path(), tag)}${view}${panel === 'layers' ? '' : `&at=${panel}`}`;
	});

	/** Another page in the same view. */
	addressAt(path: string): string {
		return this.address.replace(/page=[^&]*/, () => new URLSearchParams({ page: path }).toString());
	}

	toggle(wanted: View) {
		this.view = this.view === wanted ? 'tags' : wanted;
	}

	/** Back and forth through places of the same page. */
	onpopstate = () => {
		this.since = 0;
		if (location.pathname === place.url.pathname) this.read(new URL(location.href));
	};

	private read({ searchParams }: URL) {
		const one = <T extends string>(all: readonly T[], wanted: string | null, usual: T): T =>
			all.find((each) => each === wanted) ?? usual;
		this.bench.tag = searchParams.get('tag') ?? 'title';
		this.view = one(VIEWS, searchParams.get('view'), 'tags');
		this.bench.panel = one(PANELS, searchParams.get('at'), 'layers');
	}

	private follow(wanted: string) {
		rememberPlace(this.bench.siteName, wanted);
		const { pathname, search } = location;
		// An address without a page is the home page's; one of another page is on its way there.
		const shown = new URLSearchParams(search).get('page') ?? this.path();
		if (!this.isReady || pathname + search === wanted || shown !== this.path()) return;
		const hasStayed = Date.now() - this.since > STAY;
		this.since = Date.now();
		if (hasStayed) pushState(wanted, {});
		else replaceState(wanted, {});
	}
}
