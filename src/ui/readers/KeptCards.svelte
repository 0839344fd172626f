<script lang="ts">
	import { onMount } from 'svelte';
	import { AGAIN_IN_WORDS, ALL_READERS, readsHeadAlone } from '$core';
	import type { CardsTold } from '$server/readers/cards';
	import { call, follow, isRefused } from '$ui/client';
	import { pagesInWords } from '$ui/parts/words';

	/** What readers keep: which still show old cards of which pages, until when, and the one action that tells them. */
	let { site, look }: { site: string; look: (path: string) => void } = $props();

	let cards = $state.raw<CardsTold | undefined>();
	let refused = $state('');
	let doing = $state.raw<{ what: 'look' | 'tell'; done: number; all: number; stop: AbortController } | undefined>();
	let answers = $state.raw<readonly string[]>([]);

	async function read() {
		const answer = await call('GET /sites/{site}/cards', { site });
		if (isRefused(answer)) refused = answer.refused;
		else cards = answer;
	}
	onMount(() => void read());

	async function run(what: 'look' | 'tell') {
		const stop = new AbortController();
		[doing, refused, answers] = [{ what, done: 0, all: 0, stop }, '', []];
		const progress = (done: number, all: number, last?: string) => {
			doing = { what, done, all, stop };
			if (last !== undefined) answers = [last, ...answers].slice(0, 50);
		};
		const asked = await follow(
			'POST /sites/{site}/cards',
			{ site, body: { do: what } },
			{ signal: stop.signal, progress },
			{ stopped: '', broken: 'The answer broke off. Ask again: it goes on from what is known.' }
		);
		if (isRefused(asked)) refused = asked.refused;
		doing = undefined;
		await read();
	}
	const sum = (of: (one: CardsTold['counts'][string]) => number) =>
		cards ? Object.values(cards.counts).reduce((all, one) => all + of(one), 0) : 0;
	const current = $derived(sum((one) => one.current));
	const old = $derived(sum((one) => one.old));
	const lapsed = $derived(sum((one) => one.lapsed));
	const none = $derived(sum((one) => one.none + one['shut-out']));
	const nameOf = (id: string) => ALL_READERS.find((reader) => reader.id === id)?.name ?? id;
	const when = (iso: string) => new Date(iso).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' });
	const short = (text: string) => (text.length > 90 ? `${text.slice(0, 90)} …` : text || 'nothing');
</script>

<section class="kept" aria-label="What readers keep" data-testid="kept">
	<h2>What readers keep</h2>
	{#if cards && !cards.hasReaders}
		<p class="quiet">
			No readers are named that could be asked. Start Kephalon with <span class="mono">--readers</span> and their address.
		</p>
	{:else if cards}
		<p class="lead" role="status">
			{#if cards.pages === 0}Nobody has been asked yet.
			{:else if current === 0 && old === 0 && lapsed === 0}No reader shows a card of the {pagesInWords(cards.pages)} that
				were asked about.
			{:else if current === 0 && old === 0}No card is kept any more of {pagesInWords(cards.pages)} that were asked about:
				{lapsed.toLocaleString('en')} are fetched anew when they are asked for next.
			{:else if old === 0}All {current.toLocaleString('en')} cards that readers show are as released, of {pagesInWords(
					cards.pages
				)} that were asked about{none > 0 ? `; ${none.toLocaleString('en')} times a reader shows none` : ''}.
			{:else}<strong>{old === 1 ? 'One old card is' : `${old.toLocaleString('en')} old cards are`} out there</strong>,
				of {pagesInWords(cards.pages)} that were asked about.{/if}
			{#if cards.pages > 0 && cards.notAsked > 0}
				About {pagesInWords(cards.notAsked)} nobody was asked yet.{/if}
		</p>
		<p class="do">
			<button class="plain-button" disabled={doing !== undefined} onclick={() => void run('look')}
				>{cards.pages > 0 && cards.notAsked > 0 ? 'Ask about the next' : 'Ask what they show'}</button
			>
			<button class="main-button" disabled={doing !== undefined || old === 0} onclick={() => void run('tell')}
				>Tell them to fetch again</button
			>
			{#if doing}
				<span role="status">{doing.what === 'look' ? 'Asking' : 'Telling'}: {doing.done} of {doing.all || '…'}</span>
				<button class="link" onclick={() => doing?.stop.abort()}>Stop</button>
			{/if}
		</p>
		{#if refused}<p class="refused" role="alert">{refused}</p>{/if}
		{#if answers.length > 0}
			<details open>
				<summary>What they answered</summary>
				<ul class="small">
					{#each answers as answer, index (index)}<li>{answer}</li>{/each}
				</ul>
			</details>
		{/if}
		{#if cards.pages > 0}
			<table>
				<thead
					><tr
						><th>Reader</th><th>As released</th><th>Old</th><th>Past its time</th><th>No card</th><th>How it is told</th
						></tr
					></thead
				>
				<tbody>
					{#each ALL_READERS.filter(readsHeadAlone) as reader (reader.id)}
						{@const count = cards.counts[reader.id]}
						<tr>
							<th>{reader.name}</th>
							<td>{count?.current ?? 0}</td>
							<td class:old={(count?.old ?? 0) > 0}>{count?.old ?? 0}</td>
							<td>{count?.lapsed ?? 0}</td>
							<td>{(count?.none ?? 0) + (count?.['shut-out'] ?? 0)}</td>
							<td class="quiet"
								>{reader.habits.keeps ? AGAIN_IN_WORDS[reader.habits.keeps.again] : 'It keeps no card.'}</td
							>
						</tr>
					{/each}
				</tbody>
			</table>
		{/if}
		{#if cards.old.length > 0}
			<h3>Old cards</h3>
			<table data-testid="old-cards">
				<thead
					><tr><th>Page</th><th>Reader</th><th>It shows</th><th>Released is</th><th>It keeps it until</th></tr></thead
				>
				<tbody>
					{#each cards.old as card (card.path + card.reader)}
						<tr>
							<td><button class="link mono" onclick={() => look(card.path)}>{card.path}</button></td>
							<td>{nameOf(card.reader)}</td>
							<td class="serif">{short(card.shows ?? '')}</td>
							<td class="serif">{short(card.released ?? '')}</td>
							<td
								>{card.until ? when(card.until) : 'it keeps none'}{#if card.told}<br /><span class="quiet"
										>{card.told}</span
									>{/if}</td
							>
						</tr>
					{/each}
				</tbody>
			</table>
		{/if}
	{/if}
</section>

<style>
	.kept {
		margin-top: 26px;
		border-top: 1px solid var(--rule-strong);
		padding-top: 10px;
		max-width: 1100px;
	}
	h2 {
		font-size: 16px;
		font-weight: 600;
	}
	h3 {
		margin-top: 12px;
		font-size: 13.5px;
		font-weight: 600;
	}
	.do {
		display: flex;
		gap: 10px;
		align-items: center;
		margin: 6px 0;
		font-size: 13px;
	}
	.small {
		max-height: 140px;
		overflow-y: auto;
		font-size: 12.5px;
	}
	table {
		width: 100%;
		margin-top: 6px;
		font-size: 13px;
	}
	th,
	td {
		border-top: 1px solid var(--rule);
		padding: 3px 12px 3px 0;
		text-align: left;
		vertical-align: top;
		overflow-wrap: anywhere;
	}
	thead th {
		border: 0;
		font-weight: 600;
		color: var(--ink-soft);
	}
	.old {
		font-weight: 600;
		color: var(--flag);
	}
	.link {
		text-align: left;
	}
</style>
