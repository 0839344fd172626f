import { SvelteMap } from 'svelte/reactivity';
import { nameOfRecipe, type Recipe } from '$core';
import { drawShare, isRefused } from '$ui/client';

/** Waits this long (milliseconds) for the next change before a share picture is drawn. */
const PAUSE = 90;
/** So many drawn pictures are held; then the oldest go. */
const MOST_HELD = 60;

/** Share pictures as they would be, drawn by the server when they are first looked at. */
export class Shares {
	/** Addresses of drawn pictures, by name. */
	private readonly drawn = new SvelteMap<string, string>();
	/** The picture last drawn for each place that shows one: it stays until the next is there. */
	private readonly last = new SvelteMap<string, string>();
	/** What each place waits for. */
	private readonly wanted = new Map<string, Recipe>();
	private working = false;

	constructor(
		private readonly site: string,
		private readonly failed: (why: string) => void
	) {}

	/** The address of a recipe's picture for a place on the screen; '' until one was drawn for it. */
	at(place: string, recipe: Recipe): string {
		const known = this.drawn.get(nameOfRecipe(recipe));
		if (known) return known;
		const before = this.wanted.get(place);
		if (!before || nameOfRecipe(before) !== nameOfRecipe(recipe)) {
			this.wanted.set(place, recipe);
			setTimeout(() => void this.work(), PAUSE);
		}
		return this.last.get(place) ?? '';
	}

	/** One after the other: what was overtaken meanwhile is never drawn. */
	private async work() {
		if (this.working) return;
		this.working = true;
		for (let next = this.takeNext(); next; next = this.takeNext()) {
			const [place, recipe] = next;
			const name = nameOfRecipe(recipe);
			const url = this.drawn.get(name) ?? (await this.draw(recipe));
			if (!url) continue;
			this.drawn.set(name, url);
			this.last.set(place, url);
			this.forget();
		}
		this.working = false;
	}

	private takeNext(): [string, Recipe] | undefined {
		const next = this.wanted.entries().next().value;
		if (next) this.wanted.delete(next[0]);
		return next;
	}

	private async draw(recipe: Recipe): Promise<string | undefined> {
		const answer = await drawShare(this.site, recipe);
		if (!isRefused(answer)) return URL.createObjectURL(answer);
		this.failed(answer.refused);
		return undefined;
	}

	private forget() {
		for (const [name, url] of this.drawn) {
			if (this.drawn.size <= MOST_HELD) return;
			if ([...this.last.values()].includes(url)) continue;
			this.drawn.delete(name);
			URL.revokeObjectURL(url);
		}
	}
}
