<script lang="ts">
	import { wording } from '$ui/words/en/readers';
	import { counted, momentInWords } from '$ui/words/speaking';
	import { works, type Work } from '$ui/works/works.svelte';
	import WorkLine from '$ui/works/WorkLine.svelte';
	import Disclosure from '$ui/parts/shown/Disclosure.svelte';
	import Button from '$ui/parts/Button.svelte';
	import Refused from '$ui/parts/Refused.svelte';
	import { onMount } from 'svelte';
	import { AGAIN_IN_WORDS, ALL_READERS, readsHeadAlone } from '$core';
	import type { CardsTold } from '$server/readers/cards';
	import { call, follow, isRefused } from '$ui/client';
	import { pagesInWords } from '$ui/parts/words';

	/** What readers keep: which still show old cards of which pages, until when, and the one action that tells them. */
	let { site, look }: { site: string; look: (path: string) => void } = $props();

	let cards = $state.raw<CardsTold | undefined>();
	let refused = $state('');
	let doing = $state.raw<Work | undefined>();
	let answers = $state.raw<readonly string[]>([]);

	async function read() {
		const answer = await call('GET /sites/{site}/cards', { site });
		if (isRefused(answer)) refused = answer.refused;
		else cards = answer;
	}
	onMount(() => void read());

	async function run(what: 'look' | 'tell') {
		const work = (doing = works.begin(site, what === 'look' ? wording.askingReaders : wording.tellingReaders));
		[refused, answers] = ['', []];
		const progress = (done: number, all: number, last?: string) => {
			work.progress(done, all, last);
			if (last !== undefined) answers = [last, ...answers].slice(0, 50);
		};
		const asked = await follow(
			'POST /sites/{site}/cards',
			{ site, body: { do: what } },
			{ signal: work.signal, progress },
			{ stopped: '', broken: wording.theAnswerBrokeOffAskAgainIt }
		);
		if (isRefused(asked)) refused = asked.refused;
		doing = undefined;
		works.end(
			work,
			isRefused(asked) ? asked.refused : what === 'look' ? wording.theReadersWereAsked : wording.theReadersWereTold,
			isRefused(asked)
		);
		await read();
	}
	const sum = (of: (one: CardsTold['counts'][string]) => number) =>
		cards ? Object.values(cards.counts).reduce((all, one) => all + of(one), 0) : 0;
	const current = $derived(sum((one) => one.current));
	const old = $derived(sum((one) => one.old));
	const lapsed = $derived(sum((one) => one.lapsed));
	const none = $derived(sum((one) => one.none + one['shut-out']));
	const nameOf = (id: string) => ALL_READERS.find((reader) => reader.id === id)?.name ?? id;
	const short = (text: string) => (text.length > 90 ? `${text.slice(0, 90)} …` : text || 'nothing');
</script>

<section
	class="kept mt-6.5 max-w-275 border-t border-t-rule-strong pt-2.5"
	aria-label={wording.whatReadersKeep}
	data-testid="kept"
>
	<h2 class="text-md font-semibold">{wording.whatReadersKeep}</h2>
	{#if cards && !cards.hasReaders}
		<p class="text-ink-soft">
			{wording.noReadersAreNamedThatCouldBe} <span class="font-mono">--readers</span>
			{wording.andTheirAddress}
		</p>
	{:else if cards}
		<p class="lead" role="status">
			{#if cards.pages === 0}{wording.nobodyHasBeenAskedYet}
			{:else if current === 0 && old === 0 && lapsed === 0}{wording.noReaderShowsACardOfThe(pagesInWords(cards.pages))}
			{:else if current === 0 && old === 0}{wording.noCardIsKeptAnyMoreOf(pagesInWords(cards.pages), counted(lapsed))}
			{:else if old === 0}{wording.allCardsThatReadersShowAreAs(
					counted(current),
					pagesInWords(cards.pages),
					none > 0 ? wording.timesAReaderShowsNone(counted(none)) : ''
				)}
			{:else}<strong>{wording.outThere(old === 1 ? wording.oneOldCardIs : wording.oldCardsAre(counted(old)))}</strong
				>{wording.ofThatWereAskedAbout(pagesInWords(cards.pages))}{/if}
			{#if cards.pages > 0 && cards.notAsked > 0}
				{wording.aboutNobodyWasAskedYet(pagesInWords(cards.notAsked))}{/if}
		</p>
		<p class="do mx-0 my-1.5 flex items-center gap-2.5 text-sm">
			<Button disabled={doing !== undefined} onclick={() => void run('look')}
				>{cards.pages > 0 && cards.notAsked > 0 ? wording.askAboutTheNext : wording.askWhatTheyShow}</Button
			>
			<Button look="main" disabled={doing !== undefined || old === 0} onclick={() => void run('tell')}
				>{wording.tellThemToFetchAgain}</Button
			>
			{#if doing}
				<WorkLine work={doing} />
			{/if}
		</p>
		{#if refused}<Refused>{refused}</Refused>{/if}
		{#if answers.length > 0}
			<Disclosure open label={wording.whatTheyAnswered}>
				<ul class="max-h-35 overflow-y-auto text-sm">
					{#each answers as answer, index (index)}<li>{answer}</li>{/each}
				</ul>
			</Disclosure>
		{/if}
		{#if cards.pages > 0}
			<table class="mt-1.5 w-full text-sm">
				<thead
					><tr
						><th
							class="border-0 border-t-rule py-0.75 pr-3 pl-0 text-left align-top font-semibold wrap-anywhere text-ink-soft"
							>{wording.reader}</th
						><th
							class="border-0 border-t-rule py-0.75 pr-3 pl-0 text-left align-top font-semibold wrap-anywhere text-ink-soft"
							>{wording.asReleased}</th
						><th
							class="border-0 border-t-rule py-0.75 pr-3 pl-0 text-left align-top font-semibold wrap-anywhere text-ink-soft"
							>{wording.old}</th
						><th
							class="border-0 border-t-rule py-0.75 pr-3 pl-0 text-left align-top font-semibold wrap-anywhere text-ink-soft"
							>{wording.pastItsTime}</th
						><th
							class="border-0 border-t-rule py-0.75 pr-3 pl-0 text-left align-top font-semibold wrap-anywhere text-ink-soft"
							>{wording.noCard}</th
						><th
							class="border-0 border-t-rule py-0.75 pr-3 pl-0 text-left align-top font-semibold wrap-anywhere text-ink-soft"
							>{wording.howItIsTold}</th
						></tr
					></thead
				>
				<tbody>
					{#each ALL_READERS.filter(readsHeadAlone) as reader (reader.id)}
						{@const count = cards.counts[reader.id]}
						<tr>
							<th class="border-t border-t-rule py-0.75 pr-3 pl-0 text-left align-top wrap-anywhere">{reader.name}</th>
							<td class="border-t border-t-rule py-0.75 pr-3 pl-0 text-left align-top wrap-anywhere"
								>{count?.current ?? 0}</td
							>
							<td
								class="border-t border-t-rule py-0.75 pr-3 pl-0 text-left align-top wrap-anywhere [&.old]:font-semibold [&.old]:text-flag"
								class:old={(count?.old ?? 0) > 0}>{count?.old ?? 0}</td
							>
							<td class="border-t border-t-rule py-0.75 pr-3 pl-0 text-left align-top wrap-anywhere"
								>{count?.lapsed ?? 0}</td
							>
							<td class="border-t border-t-rule py-0.75 pr-3 pl-0 text-left align-top wrap-anywhere"
								>{(count?.none ?? 0) + (count?.['shut-out'] ?? 0)}</td
							>
							<td class="border-t border-t-rule py-0.75 pr-3 pl-0 text-left align-top wrap-anywhere text-ink-soft"
								>{reader.habits.keeps ? AGAIN_IN_WORDS[reader.habits.keeps.again] : wording.itKeepsNoCard}</td
							>
						</tr>
					{/each}
				</tbody>
			</table>
		{/if}
		{#if cards.old.length > 0}
			<h3 class="mt-3 text-base font-semibold">{wording.oldCards}</h3>
			<table class="mt-1.5 w-full text-sm" data-testid="old-cards">
				<thead
					><tr
						><th
							class="border-0 border-t-rule py-0.75 pr-3 pl-0 text-left align-top font-semibold wrap-anywhere text-ink-soft"
							>{wording.page}</th
						><th
							class="border-0 border-t-rule py-0.75 pr-3 pl-0 text-left align-top font-semibold wrap-anywhere text-ink-soft"
							>{wording.reader}</th
						><th
							class="border-0 border-t-rule py-0.75 pr-3 pl-0 text-left align-top font-semibold wrap-anywhere text-ink-soft"
							>{wording.itShows}</th
						><th
							class="border-0 border-t-rule py-0.75 pr-3 pl-0 text-left align-top font-semibold wrap-anywhere text-ink-soft"
							>{wording.releasedIs}</th
						><th
							class="border-0 border-t-rule py-0.75 pr-3 pl-0 text-left align-top font-semibold wrap-anywhere text-ink-soft"
							>{wording.itKeepsItUntil}</th
						></tr
					></thead
				>
				<tbody>
					{#each cards.old as card (card.path + card.reader)}
						<tr>
							<td class="border-t border-t-rule py-0.75 pr-3 pl-0 text-left align-top wrap-anywhere"
								><Button look="link" class="text-left font-mono" onclick={() => look(card.path)}>{card.path}</Button
								></td
							>
							<td class="border-t border-t-rule py-0.75 pr-3 pl-0 text-left align-top wrap-anywhere"
								>{nameOf(card.reader)}</td
							>
							<td class="border-t border-t-rule py-0.75 pr-3 pl-0 text-left align-top font-serif wrap-anywhere"
								>{short(card.shows ?? '')}</td
							>
							<td class="border-t border-t-rule py-0.75 pr-3 pl-0 text-left align-top font-serif wrap-anywhere"
								>{short(card.released ?? '')}</td
							>
							<td class="border-t border-t-rule py-0.75 pr-3 pl-0 text-left align-top wrap-anywhere"
								>{card.until ? momentInWords(card.until) : wording.itKeepsNone}{#if card.told}<br /><span
										class="text-ink-soft">{card.told}</span
									>{/if}</td
							>
						</tr>
					{/each}
				</tbody>
			</table>
		{/if}
	{/if}
</section>
