import { spoken } from '$ui/words/speaking';
import {
	measureReach,
	pagesIn,
	sameJson,
	takenBack,
	type AnyEdit,
	type Changes,
	type Reach,
	type RuleBody,
	type Rule
} from '$core';
import { flushSync } from 'svelte';
import * as client from '$ui/client';
import type { BenchData } from './data';
import { bodyOf, keyOfEdit } from './edits';

/** How far the counting of a reach has come. */
export interface Counting {
	readonly seen: number;
	readonly all: number;
}

/** What a draft is begun with, and what of it outlives the tab. */
export interface DraftSeed {
	readonly edit: AnyEdit;
	/** What a template field holds. */
	readonly text: string;
	/** What stood there when it was begun: a rule's body or null, or the settings it changes. */
	readonly base: unknown;
}

/** An edit that is being made and is not kept yet; writing on makes another one in its place. */
export class Draft implements DraftSeed {
	readonly edit: AnyEdit;
	readonly text: string;
	base: unknown;
	/** A sentence where it could not be counted. */
	reach = $state.raw<Reach | Counting | 'stopped' | { readonly refused: string } | undefined>();
	/** What the server said when it would not keep it. */
	refused = $state.raw<string | undefined>();
	/** What stands there now, when it was changed elsewhere meanwhile. */
	conflict = $state.raw<{ readonly current: unknown } | undefined>();

	constructor({ edit, text, base }: DraftSeed) {
		this.edit = edit;
		this.text = text;
		this.base = base;
	}

	/** What the edit writes, in the form of its base. */
	get mine(): RuleBody | Changes<object> | null {
		return 'tag' in this.edit ? this.edit.body : this.edit.changes;
	}

	toJSON(): DraftSeed {
		return { edit: this.edit, text: this.text, base: this.base };
	}
}

/** What the drafts stand on. */
export interface Ground {
	readonly siteName: string;
	/** The page in view and what is over it; undefined where no page is in view: then nothing new is written. */
	readonly data?: BenchData | undefined;
	/** Whether an edit has an error, so that it stays a draft. */
	isBroken(edit: AnyEdit): boolean;
	/** An edit was kept: it is part of the data from now on. */
	took(edit: AnyEdit): void;
}

/** Waits this long (milliseconds) after the last keystroke before the reach is counted. */
const PAUSE = 300;
/** What touches one page alone is kept this long (milliseconds) after the last keystroke. */
const REST = 1500;

/** The edits that are being made: each with its reach, until it is kept, taken back, or found in conflict. */
export class Drafts {
	all = $state.raw<Readonly<Record<string, Draft>>>({});
	saving = $state<'idle' | 'saving' | 'failed'>('idle');
	savedAt = $state<string | undefined>();
	/** How many edits were kept here: what fields can take back by themselves ends with each. */
	keptEdits = $state(0);
	/** How many wait for someone to keep them. */
	readonly waiting = $derived(Object.keys(this.all).length);
	readonly edits = $derived(Object.values(this.all).map(({ edit }) => edit));
	/** The counts of reach under way, by draft: one that is written further is counted anew. */
	private readonly counting = new Map<string, AbortController>();
	private readonly resting = new Map<string, ReturnType<typeof setTimeout>>();
	/** What is being kept, by draft: one place is sent for one after the other. */
	private readonly sending = new Map<string, Promise<void>>();
	private underWay = 0;
	private readonly onItsWay = new Map<string, Draft>();

	constructor(private readonly ground: Ground) {}

	/** Takes an edit that is being made, in the place of the one before at the same place; as it was kept, it is none. */
	put(edit: AnyEdit, text: string, base: unknown) {
		const key = keyOfEdit(edit);
		const before = this.all[key];
		const draft = new Draft({ edit, text, base: before && 'tag' in edit ? before.base : base });
		if (sameJson(draft.mine, base)) return this.discard(key);
		draft.reach = { seen: 0, all: this.ground.data?.count.all ?? 0 };
		draft.conflict = before?.conflict;
		this.set(key, draft);
		this.count(key, draft);
	}

	/** An edit that is there for an instant, in which nothing is counted, kept or sent; where there is a draft it is left. */
	tryOut(edit: AnyEdit, reach: Draft['reach']) {
		const key = keyOfEdit(edit);
		if (this.all[key]) return;
		const draft = new Draft({ edit, text: '', base: null });
		draft.reach = reach;
		this.set(key, draft);
		flushSync();
		this.set(key, undefined);
		flushSync();
	}

	private set(key: string, draft: Draft | undefined) {
		const { [key]: _before, ...others } = this.all;
		this.all = draft ? { ...others, [key]: draft } : others;
	}

	private count(key: string, draft: Draft) {
		const { data } = this.ground;
		if (data && draft.edit.place.layer === 'page') this.countHere(key, draft, data);
		else this.countReach(key, draft);
	}

	/** One page's reach is found at once, and what touches one page alone is kept by itself after a rest. */
	private countHere(
		key: string,
		draft: Draft,
		{ site, types, page, pictures, others = [], moved, readers = 0 }: BenchData
	) {
		const model = { site, types, pictures, others: pagesIn([page, ...others], moved) };
		draft.reach = measureReach(model, [page], draft.edit, new Date().toISOString());
		// Other pages read this one: how many of them change is known to the server.
		if (readers > 0) this.countReach(key, draft);
		clearTimeout(this.resting.get(key));
		this.resting.set(
			key,
			setTimeout(() => void this.keep(key), REST)
		);
	}

	private countReach(key: string, draft: Draft) {
		this.counting.get(key)?.abort();
		const abort = new AbortController();
		this.counting.set(key, abort);
		const set = (reach: Draft['reach']) => {
			if (!abort.signal.aborted) draft.reach = reach;
		};
		const count = async () => {
			if (abort.signal.aborted) return;
			const progress = (seen: number, all: number) => set({ seen, all });
			set(await client.reach(this.ground.siteName, draft.edit, abort.signal, progress).catch(() => client.NO_ANSWER));
		};
		setTimeout(() => void count(), PAUSE);
	}

	/** Ends the counting of a draft's reach; the draft stays. */
	stopCounting(key: string) {
		this.counting.get(key)?.abort();
		const draft = this.all[key];
		if (draft) draft.reach = 'stopped';
	}

	discard(key: string) {
		this.counting.get(key)?.abort();
		clearTimeout(this.resting.get(key));
		if (this.all[key]) this.set(key, undefined);
		// With the last one taken back, nothing is left that was not kept.
		if (this.saving === 'failed' && this.waiting === 0) this.saving = 'idle';
	}

	/**
	 * Keeps a draft in the working copy. One with an error, or in conflict, stays a draft. What was sent of the same place
	 * before is answered first: the next stands on it.
	 */
	async keep(key: string) {
		clearTimeout(this.resting.get(key));
		const before = this.sending.get(key);
		const mine = before ? before.then(() => this.keepNow(key)) : this.keepNow(key);
		this.sending.set(key, mine);
		try {
			await mine;
		} finally {
			if (this.sending.get(key) === mine) this.sending.delete(key);
		}
	}

	private async keepNow(key: string) {
		const draft = this.all[key];
		if (!draft || draft.conflict || this.ground.isBroken(draft.edit)) return;
		this.onItsWay.set(key, draft);
		const result = await this.send(draft.edit, draft.base).finally(() => this.onItsWay.delete(key));
		const now = this.all[key];
		if (now && result.kind === 'refused') now.refused = result.why;
		if (now && result.kind === 'conflict') now.conflict = { current: result.current };
		if (result.kind !== 'kept') return;
		this.keptEdits++;
		// What was typed while it was on its way stays a draft, on top of what was kept.
		if (now && sameJson(now.edit, draft.edit)) this.discard(key);
		else if (now) now.base = draft.mine;
	}

	private async send(edit: AnyEdit, expected: unknown): Promise<client.Kept> {
		this.saving = 'saving';
		this.underWay++;
		let result = await client.keep(this.ground.siteName, edit, expected).finally(() => this.underWay--);
		// What stands there is what is sent: it was kept before, as one left.
		if (result.kind === 'conflict' && sameJson(result.current, 'tag' in edit ? edit.body : edit.changes))
			result = { kind: 'kept' };
		this.saving = result.kind !== 'kept' ? 'failed' : this.underWay > 0 ? 'saving' : 'idle';
		if (result.kind !== 'kept') return result;
		this.savedAt = new Date().toLocaleTimeString(spoken(), { hour: '2-digit', minute: '2-digit' });
		this.ground.took(edit);
		return result;
	}

	/** In a conflict: puts one's own over what stands there now. */
	async overrule(key: string) {
		const draft = this.all[key];
		if (!draft?.conflict) return;
		draft.base = draft.conflict.current;
		draft.conflict = undefined;
		await this.keep(key);
	}

	/** Takes up drafts that were put down by an earlier visit. */
	takeUp(seeds: Readonly<Record<string, DraftSeed>>) {
		for (const [key, seed] of Object.entries(seeds)) {
			const draft = new Draft(seed);
			const { place } = draft.edit;
			this.set(key, draft);
			if (place.layer !== 'page' || place.path === this.ground.data?.page.path) this.count(key, draft);
			// Another page's own, sent as one left it: this makes sure.
			else void this.keep(key);
		}
		this.findConflicts();
	}

	/** Keeps at once what would be kept by itself in a moment: before another page is shown. */
	async settle() {
		const own = Object.entries(this.all).filter(([, { edit }]) => edit.place.layer === 'page');
		for (const [key] of own) await this.keep(key);
	}

	/** Sends what would be kept by itself in a moment, as one leaves: by requests that outlive the page. */
	leave() {
		for (const [key, { edit, base, conflict }] of Object.entries(this.all)) {
			if (edit.place.layer !== 'page' || conflict || this.ground.isBroken(edit)) continue;
			// What is on its way stands there before this comes.
			const sent = this.onItsWay.get(key);
			if (!sent || !sameJson(sent.edit, edit))
				client.keepOnLeaving(this.ground.siteName, edit, sent ? sent.mine : base);
		}
	}

	/** Marks the drafts whose ground has changed elsewhere; called when newer data has come. */
	findConflicts() {
		for (const [key, draft] of Object.entries(this.all)) {
			const current = this.ground.data && standingAt(this.ground.data, draft.edit);
			if (current === undefined) continue;
			// What stands there is what was written: it was kept as one left.
			if (sameJson(current, draft.mine)) this.discard(key);
			else if (!sameJson(current, draft.base)) draft.conflict = { current };
		}
	}
}

/** What stands at a place: the site, a type, the page in view, a picture; undefined for another page. */
export function ownerOf({ site, types, page, pictures }: BenchData, place: AnyEdit['place']) {
	switch (place.layer) {
		case 'site':
			return site;
		case 'type':
			return types.find((type) => type.name === place.name);
		case 'page':
			return place.path === page.path ? page : undefined;
		case 'picture':
			return pictures.find((picture) => picture.src === place.src);
	}
}

/** What is kept at the place of an edit, in the form of its base; undefined for another page. */
function standingAt(data: BenchData, edit: AnyEdit): unknown {
	const owner = ownerOf(data, edit.place);
	if (!owner) return undefined;
	if ('changes' in edit) return takenBack(owner as object, edit.changes);
	const isIt = (rule: Rule) => rule.tag === edit.tag && (rule.language ?? '') === (edit.language ?? '');
	return bodyOf((owner as BenchData['page']).rules.find(isIt));
}
