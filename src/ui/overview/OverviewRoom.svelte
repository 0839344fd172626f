<script lang="ts">
	import { wording } from '$ui/words/en/overview';
	import { counted, momentInWords } from '$ui/words/speaking';
	import Empty from '$ui/parts/Empty.svelte';
	import Button from '$ui/parts/Button.svelte';
	import { byWhom } from '$ui/people/byWhom';
	import { onMount, untrack } from 'svelte';
	import { keyOfKind } from '$core';
	import { refresh } from '$ui/parts/refresh';
	import type { Overview } from '$server/web/overview';
	import { call, isRefused } from '../client';
	import { Findings } from '../findings/looking.svelte';
	import { lookAt } from '$ui/cards/pictureLook';
	import ReaderCard from '$ui/cards/ReaderCard.svelte';
	import { editInWords } from '$ui/record/record';
	import { benchAt, pagesAt, roomAt } from '$ui/places/rooms';
	import RoomBar from '$ui/rooms/RoomBar.svelte';
	import ServedPart from './ServedPart.svelte';
	import { Neighbours } from '$ui/workspace/sharing';
	import { pagesInWords } from '$ui/parts/words';

	/** Can this be shared? What is live, what waits for a release, what is wrong. */
	let { data }: { data: Overview } = $props();

	const site = untrack(() => data.site.name);
	const neighbours = new Neighbours(site);
	const findings = new Findings(site);
	const groups = $derived(findings.groups);
	let ticked = $state<readonly string[]>(untrack(() => data.ticked));
	const WORST = 5;
	onMount(() => {
		const look = async () => {
			await findings.look();
			await refresh(() => !isGone);
		};
		let isGone = false;
		void look();
		const unheard = neighbours.listen(() => void look());
		return () => {
			isGone = true;
			findings.leave();
			unheard();
		};
	});
	const waiting = $derived(data.differing.changed + data.differing.added + data.differing.removed);
	const missing = $derived(data.checks.filter(({ isDone, id }) => (isDone ?? ticked.includes(id)) !== true));
	const unknown = $derived(data.checks.filter(({ isDone }) => isDone === 'unknown').length);
	/** Who sees what is released. */
	const live = $derived(data.site.isPrivate ? wording.releasedToThoseWithARightTo : wording.live2);
	const answer = $derived.by(() => {
		if (!data.release) return { says: wording.nothingIsReleasedYetVisitors, tone: 'waits' };
		const unseen = data.unseen > 0 ? wording.yetToBeCompared(pagesInWords(data.unseen)) : '';
		if (waiting > 0)
			return {
				says: wording.withWaitingForARelease(live, pagesInWords(waiting), unseen && wording.and(unseen)),
				tone: 'waits'
			};
		if (unseen) return { says: wording.withWithWhatIsWritten(live, unseen), tone: 'waits' };
		return { says: wording.andAllOfItIsAsWritten(live), tone: 'well' };
	});
	/** Cards that readers still show as they were before the release, as far as they were asked. */
	let oldCards = $state(0);
	onMount(async () => {
		const cards = await call('GET /sites/{site}/cards', { site });
		if (!isRefused(cards)) oldCards = Object.values(cards.counts).reduce((sum, one) => sum + one.old, 0);
	});
	async function tick(id: string, on: boolean) {
		const kept = await call('POST /sites/{site}/launch', {
			...{ site, body: { id, on } },
			// It outlives the page: who ticks and leaves at once has ticked.
			keepalive: true
		});
		if (!isRefused(kept)) ticked = kept;
	}
	const shown = (address: string) => lookAt(address, data.site.base, data.standIn, []);
</script>

<div class="flex h-screen flex-col">
	<RoomBar {site} room="overview" />
	<main
		class="grid flex-1 grid-cols-[minmax(0,7fr)_minmax(300px,5fr)] content-start gap-x-8.5 gap-y-1.5 overflow-y-auto px-6.5 pt-5 pb-10 max-middle:block max-middle:p-3.5"
		id="room"
	>
		<header class="col-span-full">
			<p class="font-mono text-ink-soft">{data.site.base}</p>
			<h1
				class="serif {answer.tone} mx-0 mt-0.5 mb-1.5 font-serif text-xl leading-[1.2] font-semibold [&.back]:line-through [&.done]:text-ink-soft [&.waits]:text-flag"
				data-testid="answer"
			>
				{answer.says}
			</h1>
			<p>
				<a class="underline underline-offset-2" href={pagesAt(site, { state: 'live' })}
					>{wording.live(pagesInWords(data.live))}</a
				>{#if data.drafts > 0},
					<a class="underline underline-offset-2" href={pagesAt(site, { state: 'draft' })}
						>{wording.notPublic(counted(data.drafts))}</a
					>{/if}{#if data.release}.
					<a class="underline underline-offset-2" href={roomAt('releases', site)}
						>{wording.release(data.release.number)}</a
					>, {momentInWords(data.release.created)}{#if data.release.note}: “{data.release.note}”{/if}{/if}.
				{#if waiting > 0}<Button href={roomAt('releases', site)}>{wording.seeWhatWouldGoOut}</Button>{/if}
			</p>
			{#if oldCards > 0}
				<p data-testid="old">
					<a class="underline underline-offset-2" href={roomAt('readers', site)}
						>{wording.old(oldCards === 1 ? wording.oneCardOutThereIs : wording.cardsOutThereAre(counted(oldCards)))}</a
					>{wording.tellThemToFetchAgain}
				</p>
			{/if}
		</header>
		<section aria-labelledby="worst">
			<h2 class="mt-4.5 border-t border-t-rule-strong pt-1.75 text-md font-semibold" id="worst">
				{wording.whatToMendFirst}
				<a class="more ml-2 text-sm font-normal underline underline-offset-2" href={roomAt('findings', site)}
					>{wording.allFindings}</a
				>
			</h2>
			{#if findings.state}<p class="text-ink-soft" role="status">{findings.state}</p>
			{:else if findings.nothing}<p>{data.live > 0 ? findings.nothing : wording.thereIsNoPublicPageToLook}</p>{/if}
			<ol class="worst">
				{#each groups?.slice(0, WORST) ?? [] as group (keyOfKind(group))}
					<li class="grid grid-cols-[92px_1fr] gap-2.5 border-b border-b-rule px-0 py-1.75">
						<a
							class="underline underline-offset-2"
							href={group.filter ? pagesAt(site, group.filter as Record<string, string>) : roomAt('findings', site)}
							>{pagesInWords(group.pages)}</a
						>
						<p><strong>{group.says}.</strong> {group.mend}</p>
					</li>
				{/each}
			</ol>
		</section>
		<section class="launch text-base" aria-labelledby="launch">
			<h2 class="mt-4.5 border-t border-t-rule-strong pt-1.75 text-md font-semibold" id="launch">
				{wording.beforeItIsPublic}
				<span class="ml-2 text-sm font-normal text-ink-soft"
					>{missing.length === 0
						? wording.allDone
						: wording.toGo(missing.length - unknown, unknown > 0 ? wording.beingLookedAt(unknown) : '')}</span
				>
			</h2>
			<ul>
				{#each data.checks as check (check.id)}
					{@const isDone = check.isDone ?? ticked.includes(check.id)}
					<li class="py-0.5 pr-0 pl-5.5 -indent-5.5 [&.done]:text-ink-soft" class:done={isDone === true}>
						{#if check.isDone === undefined}
							<label
								><input
									class="my-0 mr-2 ml-0 w-3.5 indent-0"
									type="checkbox"
									checked={isDone === true}
									onchange={(event) => void tick(check.id, event.currentTarget.checked)}
								/>
								{check.says}</label
							>
						{:else}
							<span class="inline-block w-5.5 indent-0 font-bold text-flag in-[.done]:text-sea" aria-hidden="true"
								>{isDone === true ? '✓' : isDone ? '…' : '·'}</span
							><span class="sr-only"
								>{isDone === true ? wording.done : isDone ? wording.notKnownYet : wording.toDo}</span
							>{#if isDone === 'unknown'}{check.says}?
								<span class="text-ink-soft">{wording.pagesAreBeingLookedAt}</span>
							{:else if isDone || !check.missing}{check.says}
							{:else if check.filter}<a class="underline underline-offset-2" href={pagesAt(site, check.filter)}
									>{check.missing}</a
								>
							{:else}{check.missing}{/if}
						{/if}
					</li>
				{/each}
			</ul>
		</section>
		<section class="cards col-span-full" aria-labelledby="keys">
			<h2 class="mt-4.5 border-t border-t-rule-strong pt-1.75 text-md font-semibold" id="keys">
				{wording.theKeyPagesAsAFeedShows}
			</h2>
			<div class="mt-2 grid grid-cols-[repeat(auto-fill,minmax(250px,1fr))] gap-4">
				{#each data.cards as { path, card } (path)}
					<a href={benchAt(site, path)}>
						<ReaderCard {card} {shown} />
						<span class="font-mono text-xs text-ink-soft">{path}</span>
					</a>
				{/each}
			</div>
		</section>
		<ServedPart {site} />
		<section class="edits col-span-full" aria-labelledby="edits">
			<h2 class="mt-4.5 border-t border-t-rule-strong pt-1.75 text-md font-semibold" id="edits">
				{wording.whatChangedLately}
			</h2>
			<ul>
				{#each data.edits as edit (edit.id)}
					<li class="border-b border-b-rule px-0 py-0.75 text-sm [&.back]:line-through" class:back={edit.isBack}>
						{editInWords(edit)}
						<span class="text-ink-soft">{byWhom(edit.author)}, {momentInWords(edit.made)}</span>
					</li>
				{:else}<li>
						<Empty says={wording.nothingWasChangedYet}>{wording.whatIsChangedStandsHereAnd}</Empty>
					</li>{/each}
			</ul>
		</section>
	</main>
</div>
