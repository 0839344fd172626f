<script lang="ts">
	import { wording } from '$ui/words/en/releases';
	import { counted, momentInWords } from '$ui/words/speaking';
	import { works, type Work } from '$ui/works/works.svelte';
	import WorkLine from '$ui/works/WorkLine.svelte';
	import Empty from '$ui/parts/Empty.svelte';
	import Button from '$ui/parts/Button.svelte';
	import Told from '$ui/parts/Told.svelte';
	import { byWhom } from '$ui/people/byWhom';
	import { onMount, untrack } from 'svelte';
	import { replaceState } from '$app/navigation';
	import { page as place } from '$app/state';
	import { roomAt } from '$ui/places/rooms';
	import { READERS } from '$core';
	import { lookAt } from '$ui/cards/pictureLook';
	import Select from '$ui/parts/select/Select.svelte';
	import { call, follow, isRefused, release as releaseNow } from '../client';
	import { keyOf } from '$ui/parts/keys';
	import RoomBar from '$ui/rooms/RoomBar.svelte';
	import { Neighbours } from '$ui/workspace/sharing';
	import { pagesInWords, type StandIn } from '$ui/parts/words';
	import type { PartOf } from '$server/http/contract';
	import type { Release } from '$server/store/releases/releases';
	import type { Sheet } from '$server/web/sheet';
	import ReleasedPages from './ReleasedPages.svelte';

	let {
		data
	}: {
		data: {
			readonly site: { readonly name: string; readonly base: string };
			readonly standIn: StandIn;
			readonly history: readonly Release[];
		};
	} = $props();
	const shown = (address: string) => lookAt(address, data.site.base, data.standIn, []);
	/** How pages are shown: by whose cards, and whether their markup is. */
	let by = $state(READERS[0]!.id);
	let asMarkup = $state(false);
	const reader = $derived(READERS.find(({ id }) => id === by) ?? READERS[0]!);

	const site = untrack(() => data.site.name);
	const neighbours = new Neighbours(site);
	let history = $state<readonly Release[]>(untrack(() => data.history));
	let sheet = $state<Sheet | undefined>();
	let [q, note] = $state(['', '']);
	/** Where the pages shown begin, and those before them: a cursor and the number of the first, each. */
	let places = $state.raw<readonly { readonly after?: string; readonly first: number }[]>([{ first: 0 }]);
	const shownFrom = $derived(places.at(-1)!);
	let message = $state('');
	let busy = $state(false);
	/** Two releases that are compared, and what differs. */
	let [from, to] = $state<[number | undefined, number | undefined]>([undefined, undefined]);
	let compared = $state<PartOf<'GET /sites/{site}/releases/between', 'answer'> | undefined>();
	let goingBack = $state<number | undefined>();
	let undone = $state<PartOf<'GET /sites/{site}/releases/between', 'answer'> | undefined>();
	const total = $derived(sheet ? sheet.changed + sheet.added + sheet.removed : 0);

	/** Leaving the room ends what is asked; a later answer never stands over a newer one. */
	const gone = new AbortController();
	let asking = 0;
	async function look() {
		const mine = ++asking;
		for (;;) {
			const answer = await call('GET /sites/{site}/sheet', {
				site,
				query: { q, ...(shownFrom.after !== undefined && { after: shownFrom.after }) }
			});
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
		const [first, second] = ['from', 'to'].map((name) => Number(place.url.searchParams.get(name)));
		if (first && second) void showBetween(first, second);
		const unheard = neighbours.listen(() => void look());
		return () => {
			gone.abort();
			clearTimeout(timer);
			unheard();
		};
	});
	/** A release that is under way: how far it is, and its end. */
	let making = $state.raw<Work | undefined>();
	/** What is yet to be said of a release: how many pages leave by it. */
	let toSay = $state.raw<{ readonly only?: readonly string[]; readonly removes: number } | undefined>();
	async function release(only?: readonly string[], removes?: number) {
		busy = true;
		const work = (making = works.begin(site, wording.releasing));
		work.progress(0, total);
		const wanted = { note, ...(only && { only }), ...(removes !== undefined && { removes }) };
		const made = await releaseNow(site, wanted, work.signal, work.progress);
		[busy, making] = [false, undefined];
		toSay =
			isRefused(made) && made.removes !== undefined ? { ...(only && { only }), removes: made.removes } : undefined;
		message = isRefused(made)
			? made.refused
			: wording.releaseChangedNewGone(made.number, made.changed, made.added, made.removed);
		works.end(work, message, isRefused(made));
		if (isRefused(made)) return;
		[note, places] = ['', [{ first: 0 }]];
		neighbours.tell();
		await look();
	}
	/** What is compared stands in the address: it can be sent, and is there again after a reload. */
	const addressOfRoom = (query = '') => replaceState(`${roomAt('releases', site)}${query}`, {});
	async function compare(a: number, b: number) {
		const [older, newer] = a < b ? [a, b] : [b, a];
		addressOfRoom(`?${new URLSearchParams({ from: String(older), to: String(newer) })}`);
		await showBetween(older, newer);
	}
	async function showBetween(older: number, newer: number) {
		[from, to] = [older, newer];
		const answer = await call('GET /sites/{site}/releases/between', { site, query: { from, to } });
		if (isRefused(answer)) message = answer.refused;
		else compared = answer;
	}
	function endComparing() {
		compared = undefined;
		[from, to] = [undefined, undefined];
		addressOfRoom();
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
	let returning = $state.raw<Work | undefined>();
	async function goBack(number: number) {
		busy = true;
		const work = (returning = works.begin(site, wording.goingBack));
		work.progress(0, undone?.count ?? 0);
		const made = await follow(
			'POST /sites/{site}/releases',
			{ site, body: { backTo: number, note, ...(leaving !== undefined && { removes: leaving }) } },
			work,
			{ stopped: wording.stoppedNothingIsReleased }
		);
		[busy, returning] = [false, undefined];
		leaving = isRefused(made) ? made.removes : undefined;
		message = isRefused(made) ? made.refused : wording.releaseIsWhatReleaseWasThe(made.number, number);
		works.end(work, message, isRefused(made));
		if (leaving !== undefined) return;
		goingBack = undefined;
		neighbours.tell();
		await look();
	}
	const told = ({ changed, added, removed }: { changed: number; added: number; removed: number }) =>
		[
			changed && wording.changed(counted(changed)),
			added && wording.newOne(counted(added)),
			removed && wording.gone(counted(removed))
		]
			.filter(Boolean)
			.join(', ') || wording.nothingChanged;
	function onkeydown(event: KeyboardEvent) {
		// What takes much away is said with the button that says how much.
		if (keyOf(event) === 'release' && total > 0 && sheet?.stops.length === 0 && !busy && !toSay) {
			event.preventDefault();
			void release();
		}
	}
	function goOn() {
		if (sheet?.next === undefined) return;
		places = [...places, { after: sheet.next, first: shownFrom.first + sheet.pages.length }];
		void look();
	}
	let timer: ReturnType<typeof setTimeout> | undefined;
	function find(text: string) {
		clearTimeout(timer);
		timer = setTimeout(() => {
			[q, places] = [text, [{ first: 0 }]];
			void look();
		}, 160);
	}
</script>

<svelte:window {onkeydown} />
{#snippet how()}
	<p class="my-1.5 flex flex-wrap items-center gap-x-4 text-sm text-ink-soft">
		<label
			>{wording.cardsBy}
			<Select
				look="bare"
				value={by}
				choices={READERS.map(({ id, name }) => [id, name] as const)}
				set={(id) => (by = id)}
			/></label
		>
		<label class="flex items-center gap-1.5"><input type="checkbox" bind:checked={asMarkup} /> {wording.asMarkup}</label
		>
	</p>
{/snippet}
<div class="flex h-screen flex-col">
	<RoomBar {site} room="releases" />
	{#if message}
		<Told>
			{message}
			{#if toSay}<Button look="main" disabled={busy} onclick={() => void release(toSay?.only, toSay?.removes)}
					>{wording.releaseAndTakeAway(pagesInWords(toSay.removes))}</Button
				>{/if}
			<Button onclick={() => ((message = ''), (toSay = undefined))}>{wording.close}</Button>
		</Told>
	{/if}
	<main
		class="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_minmax(300px,400px)] max-narrow:block max-narrow:overflow-y-auto"
		id="room"
	>
		<section class="next overflow-y-auto px-5 pt-3.5 pb-7.5" aria-labelledby="next">
			<h1 class="text-md font-semibold" id="next">
				{wording.whatWouldGoOut}
				<span class="ml-2 text-base font-normal text-ink-soft" role="status" data-testid="sheet"
					>{sheet === undefined
						? message
							? wording.notKnown
							: wording.comparing
						: sheet.unseen > 0
							? wording.ofLookedAt(
									total > 0 ? wording.soFarComparing(told(sheet)) : wording.comparing2,
									counted(sheet.all - sheet.unseen),
									pagesInWords(sheet.all)
								)
							: total === 0
								? wording.nothingAllIsAsReleased
								: told(sheet)}</span
				>
			</h1>
			{#if sheet}
				{#each sheet.stops as stop (stop)}<p class="stop mt-1.5 border-l-5 border-gone pl-2.25" role="alert">
						<strong>{wording.stopsTheRelease}</strong>
						{stop}
					</p>{/each}
				{#each sheet.warns as warn (warn)}<p class="mt-1.5 border-l-5 border-l-flag pl-2.25">{warn}</p>{/each}
				{#if sheet.nextChange}
					<p class="text-ink-soft" data-testid="next-change">
						{wording.somethingElseFromOnThenIt(
							pagesInWords(sheet.nextChange.pages),
							sheet.nextChange.pages === 1 ? wording.saysSomethingOfTheDayItSays : wording.saySomethingOfTheDayTheFirst,
							momentInWords(sheet.nextChange.at)
						)}
					</p>
				{/if}
				{#if total > 0}
					<form
						class="mx-0 my-2.5 flex max-w-190 gap-2.5"
						onsubmit={(event) => {
							event.preventDefault();
							void release();
						}}
					>
						<input
							class="flex-1"
							aria-label={wording.aNoteOnThisRelease}
							placeholder={wording.aNoteOnThisReleaseForThe}
							bind:value={note}
						/>
						{#if making}<WorkLine work={making} />
						{:else}<Button look="main" disabled={busy || sheet.stops.length > 0} data-tip={wording.ctrlEnter}
								>{wording.release(sheet.unseen > 0 ? wording.allThatDiffers : pagesInWords(total))}</Button
							>{/if}
					</form>
					<input
						type="search"
						aria-label={wording.findAmongThem}
						placeholder={wording.findByPath}
						oninput={(event) => find(event.currentTarget.value)}
					/>
				{/if}
				{@render how()}
				<ReleasedPages
					{site}
					pages={sheet.pages}
					{reader}
					{asMarkup}
					{shown}
					alone={busy ? undefined : (path) => void release([path])}
				/>
				{#if places.length > 1 || sheet.next !== undefined}
					<p class="mt-2.5">
						<Button disabled={places.length === 1} onclick={() => ((places = places.slice(0, -1)), void look())}
							>{wording.thoseBefore}</Button
						>
						{wording.to(shownFrom.first + 1, shownFrom.first + sheet.pages.length)}
						<Button disabled={sheet.next === undefined} onclick={goOn}>{wording.theNext}</Button>
					</p>
				{/if}
			{/if}
		</section>
		<section
			class="past col-start-2 row-start-1 overflow-y-auto border-l border-l-rule bg-sheet px-5 pt-3.5 pb-7.5 max-narrow:border-l-0"
			aria-labelledby="past"
		>
			<h2 class="text-md font-semibold" id="past">{wording.whatWentOut}</h2>
			{#if history.length === 0}
				<Empty says={wording.nothingIsReleasedYetVisitors}>{wording.eachReleaseStandsHereWith}</Empty>
			{/if}
			<ol>
				{#each history as one, at (one.number)}
					<li
						class="border-t border-t-rule px-0 py-2 text-sm [&.at]:border-l-4 [&.at]:border-l-sea [&.at]:pl-2"
						class:at={one.number === from || one.number === to}
					>
						<p>
							<strong>{wording.releaseNumber(one.number)}</strong>
							{#if at === 0}<span class="rounded-sm border border-sea px-1.5 py-0 text-sea">{wording.standsNow}</span
								>{/if}
							<span class="text-ink-soft"
								>{momentInWords(one.created)}{one.author ? `, ${byWhom(one.author)}` : ''}</span
							>
						</p>
						{#if one.note}<p class="font-serif">{one.note}</p>{/if}
						<p class="text-ink-soft">{pagesInWords(one.pages)}: {told(one)}</p>
						<p class="do flex gap-3.5">
							{#if history[at + 1]}<Button look="link" onclick={() => void compare(one.number, history[at + 1]!.number)}
									>{wording.whatItChanged}</Button
								>{/if}
							{#if at > 0}
								<Button look="link" onclick={() => void compare(one.number, history[0]!.number)}
									>{wording.againstNow}</Button
								>
								<Button look="link" onclick={() => void askBack(one.number)}>{wording.goBackToIt}</Button>
							{/if}
						</p>
						{#if goingBack === one.number}
							<div class="back mt-1.5 border-l-4 border-l-flag pl-2.25 text-sm underline underline-offset-2">
								{#if undone}
									<p>
										{wording.goingBackMakesANewReleaseOf(
											pagesInWords(undone.count),
											undone.pages[0] ? wording.suchAs(undone.pages[0].path) : ''
										)}
									</p>
									{#if returning}<WorkLine work={returning} />
									{:else}<Button look="main" disabled={busy} onclick={() => void goBack(one.number)}
											>{wording.goBackToRelease(
												one.number,
												leaving === undefined ? '' : wording.andTakeAway(pagesInWords(leaving))
											)}</Button
										>
										<Button look="link" onclick={() => (goingBack = undefined)}>{wording.leaveIt}</Button>{/if}
								{:else}<p class="text-ink-soft">{wording.comparing}</p>{/if}
							</div>
						{/if}
					</li>
				{/each}
			</ol>
		</section>
		{#if compared}
			<section
				class="compared z-1 col-start-1 row-start-1 overflow-y-auto bg-ground px-5 pt-3.5 pb-7.5"
				aria-labelledby="compared"
			>
				<h2 class="text-md font-semibold" id="compared">
					{wording.releaseAnd(
						from ?? 0,
						to ?? 0,
						compared.count === 0 ? wording.nothingDiffers : wording.differ(pagesInWords(compared.count))
					)}
					<Button onclick={endComparing}>{wording.close}</Button>
				</h2>
				{@render how()}
				<ReleasedPages {site} pages={compared.pages} {reader} {asMarkup} {shown} />
			</section>
		{/if}
	</main>
</div>
