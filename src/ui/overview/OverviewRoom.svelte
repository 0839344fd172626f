<script lang="ts">
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
	import { benchAt, pagesAt, roomAt } from '$ui/rooms/rooms';
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
	const live = $derived(data.site.isPrivate ? 'Released to those with a right to it' : 'Live');
	const answer = $derived.by(() => {
		if (!data.release) return { says: 'Nothing is released yet: visitors see none of this.', tone: 'waits' };
		const unseen = data.unseen > 0 ? `${pagesInWords(data.unseen)} yet to be compared` : '';
		if (waiting > 0)
			return {
				says: `${live}, with ${pagesInWords(waiting)} waiting for a release${unseen && `, and ${unseen}`}.`,
				tone: 'waits'
			};
		if (unseen) return { says: `${live}, with ${unseen} with what is written.`, tone: 'waits' };
		return { says: `${live}, and all of it is as written.`, tone: 'well' };
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
	const when = (iso: string) => new Date(iso).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' });
</script>

<div class="whole-screen">
	<RoomBar {site} room="overview" />
	<main id="room">
		<header>
			<p class="quiet mono">{data.site.base}</p>
			<h1 class="serif {answer.tone}" data-testid="answer">{answer.says}</h1>
			<p>
				<a href={pagesAt(site, { state: 'live' })}>{pagesInWords(data.live)} live</a>{#if data.drafts > 0},
					<a href={pagesAt(site, { state: 'draft' })}>{data.drafts.toLocaleString('en')} not public</a
					>{/if}{#if data.release}.
					<a href={roomAt('releases', site)}>Release {data.release.number}</a>, {when(
						data.release.created
					)}{#if data.release.note}: “{data.release.note}”{/if}{/if}.
				{#if waiting > 0}<a class="plain-button" href={roomAt('releases', site)}>See what would go out</a>{/if}
			</p>
			{#if oldCards > 0}
				<p data-testid="old">
					<a href={roomAt('readers', site)}
						>{oldCards === 1 ? 'One card out there is' : `${oldCards.toLocaleString('en')} cards out there are`} old</a
					>: tell them to fetch again.
				</p>
			{/if}
		</header>
		<section aria-labelledby="worst">
			<h2 id="worst">
				What to mend first
				<a class="more" href={roomAt('findings', site)}>all findings</a>
			</h2>
			{#if findings.state}<p class="quiet" role="status">{findings.state}</p>
			{:else if findings.nothing}<p>{data.live > 0 ? findings.nothing : 'There is no public page to look at.'}</p>{/if}
			<ol class="worst">
				{#each groups?.slice(0, WORST) ?? [] as group (keyOfKind(group))}
					<li>
						<a href={group.filter ? pagesAt(site, group.filter as Record<string, string>) : roomAt('findings', site)}
							>{pagesInWords(group.pages)}</a
						>
						<p><strong>{group.says}.</strong> {group.mend}</p>
					</li>
				{/each}
			</ol>
		</section>
		<section class="launch" aria-labelledby="launch">
			<h2 id="launch">
				Before it is public <span class="quiet"
					>{missing.length === 0
						? 'all done'
						: `${missing.length - unknown} to go${unknown > 0 ? `, ${unknown} being looked at` : ''}`}</span
				>
			</h2>
			<ul>
				{#each data.checks as check (check.id)}
					{@const isDone = check.isDone ?? ticked.includes(check.id)}
					<li class:done={isDone === true}>
						{#if check.isDone === undefined}
							<label
								><input
									type="checkbox"
									checked={isDone === true}
									onchange={(event) => void tick(check.id, event.currentTarget.checked)}
								/>
								{check.says}</label
							>
						{:else}
							<span class="found" aria-hidden="true">{isDone === true ? '✓' : isDone ? '…' : '·'}</span><span
								class="sr-only">{isDone === true ? 'Done: ' : isDone ? 'Not known yet: ' : 'To do: '}</span
							>{#if isDone === 'unknown'}{check.says}? <span class="quiet">Pages are being looked at.</span>
							{:else if isDone || !check.missing}{check.says}
							{:else if check.filter}<a href={pagesAt(site, check.filter)}>{check.missing}</a>
							{:else}{check.missing}{/if}
						{/if}
					</li>
				{/each}
			</ul>
		</section>
		<section class="cards" aria-labelledby="keys">
			<h2 id="keys">The key pages, as a feed shows them</h2>
			<div>
				{#each data.cards as { path, card } (path)}
					<a href={benchAt(site, path)}>
						<ReaderCard {card} {shown} />
						<span class="mono">{path}</span>
					</a>
				{/each}
			</div>
		</section>
		<ServedPart {site} />
		<section class="edits" aria-labelledby="edits">
			<h2 id="edits">What changed lately</h2>
			<ul>
				{#each data.edits as edit (edit.id)}
					<li class:back={edit.isBack}>
						{editInWords(edit)}
						<span class="quiet">{byWhom(edit.author)}, {when(edit.made)}</span>
					</li>
				{:else}<li class="quiet">Nothing yet.</li>{/each}
			</ul>
		</section>
	</main>
</div>

<style>
	main {
		display: grid;
		flex: 1;
		grid-template-columns: minmax(0, 7fr) minmax(300px, 5fr);
		gap: 6px 34px;
		overflow-y: auto;
		padding: 20px 26px 40px;
		align-content: start;
	}
	header,
	.cards {
		grid-column: 1 / -1;
	}
	h1 {
		margin: 2px 0 6px;
		font-size: 27px;
		font-weight: 600;
		line-height: 1.2;
	}
	h1.waits {
		color: var(--flag);
	}
	header a:not(.plain-button),
	.worst a,
	.launch a,
	.more {
		text-decoration: underline;
		text-underline-offset: 2px;
	}
	h2 {
		margin-top: 18px;
		border-top: 1px solid var(--rule-strong);
		padding-top: 7px;
		font-size: 15px;
		font-weight: 600;
	}
	h2 :is(.more, .quiet) {
		margin-left: 8px;
		font-size: 13px;
		font-weight: 400;
	}
	.worst li {
		display: grid;
		grid-template-columns: 92px 1fr;
		gap: 10px;
		border-bottom: 1px solid var(--rule);
		padding: 7px 0;
	}
	.launch {
		font-size: 13.5px;
	}
	.launch li {
		padding: 2px 0 2px 22px;
		text-indent: -22px;
	}
	.found {
		display: inline-block;
		width: 22px;
		font-weight: 700;
		text-indent: 0;
		color: var(--flag);
	}
	.done .found {
		color: var(--sea);
	}
	.done {
		color: var(--ink-soft);
	}
	.launch input {
		width: 14px;
		margin: 0 8px 0 0;
		text-indent: 0;
	}
	.cards > div {
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(250px, 1fr));
		gap: 16px;
		margin-top: 8px;
	}
	.cards .mono {
		font-size: 12px;
		color: var(--ink-soft);
	}
	.edits {
		grid-column: 1 / -1;
	}
	.edits li {
		border-bottom: 1px solid var(--rule);
		padding: 3px 0;
		font-size: 13px;
	}
	.back {
		text-decoration: line-through;
	}
	@media (max-width: 800px) {
		main {
			display: block;
			padding: 14px;
		}
	}
</style>
