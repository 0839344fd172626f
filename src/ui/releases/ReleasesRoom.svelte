<script lang="ts">
	import { byWhom } from '$ui/people/byWhom';
	import { onMount, untrack } from 'svelte';
	import { call, follow, isRefused, release as releaseNow } from '../client';
	import { keyOf } from '$ui/parts/keys';
	import { benchAt } from '$ui/rooms/rooms';
	import RoomBar from '$ui/rooms/RoomBar.svelte';
	import { Neighbours } from '$ui/workspace/sharing';
	import { pagesInWords } from '$ui/parts/words';
	import type { PartOf } from '$server/http/contract';
	import type { Release } from '$server/store/releases/releases';
	import type { Sheet } from '$server/web/sheet';
	import Difference from './Difference.svelte';

	let { data }: { data: { readonly site: { readonly name: string }; readonly history: readonly Release[] } } = $props();

	const site = untrack(() => data.site.name);
	const neighbours = new Neighbours(site);
	let history = $state<readonly Release[]>(untrack(() => data.history));
	let sheet = $state<Sheet | undefined>();
	let [offset, q, note] = $state([0, '', '']);
	let message = $state('');
	let busy = $state(false);
	/** Two releases that are compared, and what differs. */
	let [from, to] = $state<[number | undefined, number | undefined]>([undefined, undefined]);
	let compared = $state<PartOf<'GET /sites/{site}/releases/between', 'answer'> | undefined>();
	let goingBack = $state<number | undefined>();
	let undone = $state<PartOf<'GET /sites/{site}/releases/between', 'answer'> | undefined>();
	const total = $derived(sheet ? sheet.changed + sheet.added + sheet.removed : 0);
	const SHOWN = 30;

	/** Leaving the room ends what is asked; a later answer never stands over a newer one. */
	const gone = new AbortController();
	let asking = 0;
	async function look() {
		const mine = ++asking;
		for (;;) {
			const answer = await call('GET /sites/{site}/sheet', { site, query: { offset, q } });
			if (mine !== asking || gone.signal.aborted) return;
			if (isRefused(answer)) [sheet, message] = [undefined, answer.refused];
			else sheet = answer;
			if (isRefused(answer) || answer.unseen === 0) break;
		}
		const past = await call('GET /sites/{site}/releases', { site });
		if (mine === asking && !isRefused(past)) history = past;
	}
	onMount(() => {
		void look();
		const unheard = neighbours.listen(() => void look());
		return () => {
			gone.abort();
			clearTimeout(timer);
			unheard();
		};
	});
	/** A release that is under way: how far it is, and its end. */
	let making = $state.raw<{ readonly done: number; readonly all: number } | undefined>();
	let stop: AbortController | undefined;
	/** What is yet to be said of a release: how many pages leave by it. */
	let toSay = $state.raw<{ readonly only?: readonly string[]; readonly removes: number } | undefined>();
	async function release(only?: readonly string[], removes?: number) {
		busy = true;
		stop = new AbortController();
		making = { done: 0, all: total };
		const wanted = { note, ...(only && { only }), ...(removes !== undefined && { removes }) };
		const made = await releaseNow(site, wanted, stop.signal, (done, all) => (making = { done, all }));
		[busy, making] = [false, undefined];
		toSay =
			isRefused(made) && made.removes !== undefined ? { ...(only && { only }), removes: made.removes } : undefined;
		message = isRefused(made)
			? made.refused
			: `Release ${made.number}: ${made.changed} changed, ${made.added} new, ${made.removed} gone.`;
		if (isRefused(made)) return;
		[note, offset] = ['', 0];
		neighbours.tell();
		await look();
	}
	async function compare(a: number, b: number) {
		[from, to] = a < b ? [a, b] : [b, a];
		const answer = await call('GET /sites/{site}/releases/between', { site, query: { from, to } });
		if (isRefused(answer)) message = answer.refused;
		else compared = answer;
	}
	async function askBack(number: number) {
		leaving = undefined;
		goingBack = number;
		undone = undefined;
		const latest = history[0]?.number;
		if (latest === undefined) return;
		const answer = await call('GET /sites/{site}/releases/between', { site, query: { from: number, to: latest } });
		if (isRefused(answer)) message = answer.refused;
		else undone = answer;
	}
	/** How many pages leave by going back, where that is yet to be said. */
	let leaving = $state<number | undefined>();
	/** How far going back is. */
	let returning = $state.raw<{ readonly done: number; readonly all: number } | undefined>();
	async function goBack(number: number) {
		busy = true;
		stop = new AbortController();
		returning = { done: 0, all: undone?.count ?? 0 };
		const watching = { signal: stop.signal, progress: (done: number, all: number) => (returning = { done, all }) };
		const made = await follow(
			'POST /sites/{site}/releases',
			{ site, body: { backTo: number, note, ...(leaving !== undefined && { removes: leaving }) } },
			watching,
			{ stopped: 'Stopped: nothing is released.' }
		);
		[busy, returning] = [false, undefined];
		leaving = isRefused(made) ? made.removes : undefined;
		if (leaving !== undefined) return void (message = (made as { refused: string }).refused);
		message = isRefused(made)
			? made.refused
			: `Release ${made.number} is what release ${number} was. The working copy stays as it is.`;
		goingBack = undefined;
		neighbours.tell();
		await look();
	}
	const when = (iso: string) => new Date(iso).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' });
	const told = ({ changed, added, removed }: { changed: number; added: number; removed: number }) =>
		[
			changed && `${changed.toLocaleString('en')} changed`,
			added && `${added.toLocaleString('en')} new`,
			removed && `${removed.toLocaleString('en')} gone`
		]
			.filter(Boolean)
			.join(', ') || 'nothing changed';
	function onkeydown(event: KeyboardEvent) {
		// What takes much away is said with the button that says how much.
		if (keyOf(event) === 'release' && total > 0 && sheet?.stops.length === 0 && !busy && !toSay) {
			event.preventDefault();
			void release();
		}
	}
	let timer: ReturnType<typeof setTimeout> | undefined;
	function find(text: string) {
		clearTimeout(timer);
		timer = setTimeout(() => {
			[q, offset] = [text, 0];
			void look();
		}, 160);
	}
</script>

<svelte:window {onkeydown} />
<div class="whole-screen">
	<RoomBar {site} room="releases" />
	{#if message}
		<p class="message top" role="status">
			{message}
			{#if toSay}<button class="main-button" disabled={busy} onclick={() => void release(toSay?.only, toSay?.removes)}
					>Release, and take {pagesInWords(toSay.removes)} away</button
				>{/if}
			<button class="plain-button" onclick={() => ((message = ''), (toSay = undefined))}>Close</button>
		</p>
	{/if}
	<main id="room">
		<section class="next" aria-labelledby="next">
			<h1 id="next">
				What would go out
				<span class="quiet" role="status" data-testid="sheet"
					>{sheet === undefined
						? message
							? 'Not known'
							: 'Comparing …'
						: sheet.unseen > 0
							? `${total > 0 ? `${told(sheet)} so far; comparing` : 'Comparing'}: ${(sheet.all - sheet.unseen).toLocaleString('en')} of ${pagesInWords(sheet.all)} looked at`
							: total === 0
								? 'Nothing: all is as released.'
								: told(sheet)}</span
				>
			</h1>
			{#if sheet}
				{#each sheet.stops as stop (stop)}<p class="stop" role="alert">
						<strong>Stops the release.</strong>
						{stop}
					</p>{/each}
				{#each sheet.warns as warn (warn)}<p class="warn">{warn}</p>{/each}
				{#if sheet.nextChange}
					<p class="quiet" data-testid="next-change">
						{pagesInWords(sheet.nextChange.pages)}
						{sheet.nextChange.pages === 1
							? 'says something of the day. It says'
							: 'say something of the day. The first says'}
						something else from {new Date(sheet.nextChange.at).toLocaleString('en-GB', {
							dateStyle: 'medium',
							timeStyle: 'short'
						})} on; then it waits here for a release.
					</p>
				{/if}
				{#if total > 0}
					<form
						class="go"
						onsubmit={(event) => {
							event.preventDefault();
							void release();
						}}
					>
						<input
							aria-label="A note on this release"
							placeholder="A note on this release, for the history"
							bind:value={note}
						/>
						<button class="main-button" disabled={busy || sheet.stops.length > 0} title="Ctrl+Enter"
							>{making
								? `Releasing: ${making.done.toLocaleString('en')} of ${making.all.toLocaleString('en')}`
								: `Release ${sheet.unseen > 0 ? 'all that differs' : pagesInWords(total)}`}</button
						>
						{#if making}<button type="button" class="link" onclick={() => stop?.abort()}>Stop</button>{/if}
					</form>
					<input
						type="search"
						aria-label="Find among them"
						placeholder="Find by path"
						oninput={(event) => find(event.currentTarget.value)}
					/>
				{/if}
				<ul class="pages">
					{#each sheet.pages as page (page.path)}
						<li>
							<p class="path">
								<span class="kind {page.kind}">{page.kind}</span>
								<a class="mono" href={benchAt(site, page.path)}>{page.path}</a>
								<button class="link alone" disabled={busy} onclick={() => void release([page.path])}
									>Release it alone</button
								>
							</p>
							<Difference gone={page.gone} come={page.come} />
						</li>
					{/each}
				</ul>
				{#if offset > 0 || sheet.pages.length === SHOWN}
					<p class="pager">
						<button class="plain-button" disabled={offset === 0} onclick={() => ((offset -= SHOWN), void look())}
							>Those before</button
						>
						{offset + 1} to {offset + sheet.pages.length}
						<button
							class="plain-button"
							disabled={sheet.pages.length < SHOWN}
							onclick={() => ((offset += SHOWN), void look())}>The next</button
						>
					</p>
				{/if}
			{/if}
		</section>
		<section class="past" aria-labelledby="past">
			<h2 id="past">What went out</h2>
			{#if history.length === 0}<p class="quiet">Nothing is released yet: visitors see none of this.</p>{/if}
			<ol>
				{#each history as one, at (one.number)}
					<li class:at={one.number === from || one.number === to}>
						<p>
							<strong>Release {one.number}</strong>
							{#if at === 0}<span class="live">stands now</span>{/if}
							<span class="quiet">{when(one.created)}{one.author ? `, ${byWhom(one.author)}` : ''}</span>
						</p>
						{#if one.note}<p class="serif">{one.note}</p>{/if}
						<p class="quiet">{pagesInWords(one.pages)}: {told(one)}</p>
						<p class="do">
							{#if history[at + 1]}<button
									class="link"
									onclick={() => void compare(one.number, history[at + 1]!.number)}>What it changed</button
								>{/if}
							{#if at > 0}
								<button class="link" onclick={() => void compare(one.number, history[0]!.number)}>Against now</button>
								<button class="link" onclick={() => void askBack(one.number)}>Go back to it …</button>
							{/if}
						</p>
						{#if goingBack === one.number}
							<div class="back">
								{#if undone}
									<p>
										Going back makes a new release of what stood then, and undoes what came after on {pagesInWords(
											undone.count
										)}{undone.pages[0] ? `, such as ${undone.pages[0].path}` : ''}. The working copy stays as it is.
									</p>
									<button class="main-button" disabled={busy} onclick={() => void goBack(one.number)}
										>{returning
											? `Going back: ${returning.done.toLocaleString('en')} of ${returning.all.toLocaleString('en')}`
											: `Go back to release ${one.number}${leaving === undefined ? '' : `, and take ${pagesInWords(leaving)} away`}`}</button
									>
									{#if returning}<button class="link" onclick={() => stop?.abort()}>Stop</button>
									{:else}<button class="link" onclick={() => (goingBack = undefined)}>Leave it</button>{/if}
								{:else}<p class="quiet">Comparing …</p>{/if}
							</div>
						{/if}
					</li>
				{/each}
			</ol>
		</section>
		{#if compared}
			<section class="compared" aria-labelledby="compared">
				<h2 id="compared">
					Release {from} and {to}: {compared.count === 0 ? 'nothing differs' : `${pagesInWords(compared.count)} differ`}
					<button class="plain-button" onclick={() => ((compared = undefined), ([from, to] = [undefined, undefined]))}
						>Close</button
					>
				</h2>
				<ul class="pages">
					{#each compared.pages as page (page.path)}
						<li>
							<p class="path">
								<span class="kind {page.kind}">{page.kind}</span>
								<a class="mono" href={benchAt(site, page.path)}>{page.path}</a>
								<button class="link alone" disabled={busy} onclick={() => void release([page.path])}
									>Release it alone</button
								>
							</p>
							<Difference gone={page.gone} come={page.come} />
						</li>
					{/each}
				</ul>
			</section>
		{/if}
	</main>
</div>

<style>
	main {
		display: grid;
		flex: 1;
		grid-template-columns: minmax(0, 1fr) minmax(300px, 400px);
		min-height: 0;
	}
	section {
		overflow-y: auto;
		padding: 14px 20px 30px;
	}
	.past {
		grid-column: 2;
		grid-row: 1;
		border-left: 1px solid var(--rule);
		background: var(--sheet);
	}
	.compared {
		z-index: 1;
		grid-column: 1;
		grid-row: 1;
		background: var(--ground);
	}
	h1,
	h2 {
		font-size: 17px;
		font-weight: 600;
	}
	h1 span {
		margin-left: 8px;
		font-size: 14px;
		font-weight: 400;
	}
	.go {
		display: flex;
		gap: 10px;
		margin: 10px 0;
		max-width: 760px;
	}
	.go input {
		flex: 1;
	}
	.stop,
	.warn {
		margin-top: 6px;
		border-left: 5px solid var(--flag);
		padding-left: 9px;
	}
	.stop {
		border-color: var(--gone);
	}
	.pages > li {
		border-top: 1px solid var(--rule);
		padding: 7px 0;
	}
	.path a {
		font-weight: 500;
		text-decoration: underline;
		text-underline-offset: 2px;
		overflow-wrap: anywhere;
	}
	.kind {
		display: inline-block;
		min-width: 68px;
		font-size: 12.5px;
		color: var(--ink-soft);
	}
	.kind.new,
	.kind.added {
		color: var(--sea);
	}
	.kind.gone,
	.kind.removed {
		color: var(--gone);
	}
	.pager {
		margin-top: 10px;
	}
	ol li {
		border-top: 1px solid var(--rule);
		padding: 8px 0;
		font-size: 13px;
	}
	ol li.at {
		border-left: 4px solid var(--sea);
		padding-left: 8px;
	}
	.live {
		border: 1px solid var(--sea);
		border-radius: 3px;
		padding: 0 6px;
		color: var(--sea);
	}
	.do {
		display: flex;
		gap: 14px;
	}
	.back {
		margin-top: 6px;
		border-left: 4px solid var(--flag);
		padding-left: 9px;
	}
	@media (max-width: 760px) {
		main {
			display: block;
			overflow-y: auto;
		}
		.past {
			border-left: 0;
		}
	}
</style>
