<script lang="ts">
	import { wording } from '$ui/words/en/readers';
	import { momentInWords } from '$ui/words/speaking';
	import Toggles from '$ui/parts/Toggles.svelte';
	import Disclosure from '$ui/parts/shown/Disclosure.svelte';
	import Button from '$ui/parts/Button.svelte';
	import Select from '$ui/parts/select/Select.svelte';
	import Refused from '$ui/parts/Refused.svelte';
	import { byWhom } from '$ui/people/byWhom';
	import { onMount, untrack } from 'svelte';
	import { replaceState } from '$app/navigation';
	import { ALL_READERS, habitsInWords, nothingFound, reportOf, kindOfReader } from '$core';
	import { saveFile } from './saveFile';
	import type { ToldLook } from '$server/probes/told';
	import { call, isRefused } from '../client';
	import { lookAt } from '$ui/cards/pictureLook';
	import ReaderCard from '$ui/cards/ReaderCard.svelte';
	import { benchAt, roomAt } from '$ui/places/rooms';
	import KeptCards from './KeptCards.svelte';
	import RoomBar from '$ui/rooms/RoomBar.svelte';

	/** What do readers really see? An address is fetched as each of them would, and told completely. */
	interface Data {
		readonly site: { readonly name: string; readonly base: string };
		readonly wanted: string;
		/** Machines that may stand in for the public name, and the one that does. */
		readonly vias: readonly string[];
		readonly via: string;
		readonly standIn: { readonly base: string; readonly origin: string } | null;
	}
	let { data }: { data: Data } = $props();

	const site = untrack(() => data.site.name);
	let address = $state(untrack(() => data.wanted));
	let via = $state(untrack(() => (data.vias.includes(data.via) ? data.via : '')));
	let look = $state<ToldLook | undefined>();
	let refused = $state('');
	let busy = $state(false);
	let part = $state<'cards' | 'tags' | 'head'>('cards');
	/** The reader whose habits are told. */
	let told = $state('');

	async function see() {
		if (address.trim() === '') return;
		busy = true;
		const answer = await call('POST /sites/{site}/probe', {
			site,
			body: { address: address.trim(), ...(via !== '' && { via }) }
		});
		busy = false;
		refused = isRefused(answer) ? answer.refused : '';
		if (isRefused(answer)) return;
		look = answer;
		const name = address.startsWith('/') ? 'page' : 'address';
		const query = new URLSearchParams({ [name]: address.trim(), ...(via !== '' && { via }) });
		replaceState(`${roomAt('readers', site)}?${query}`, {});
	}
	onMount(() => void see());
	const shown = (one: string) => lookAt(one, data.site.base, data.standIn, []);
	const hops = $derived(look?.probe.readers.find((one) => one.hops.length > 0)?.hops ?? []);
	const whole = $derived(Math.max(1, ...hops.map(({ began, took }) => began + took)));
	const IS: Readonly<Record<ToldLook['threeWay'][number]['is'], string>> = {
		same: wording.theSame,
		'not-released': wording.notReleasedYet,
		differs: wording.servedOtherwise,
		missing: wording.notServed,
		doubled: wording.servedTwice,
		unknown: wording.writtenBySomethingElse
	};
	const MEND: Readonly<Partial<Record<ToldLook['threeWay'][number]['is'], string>>> = {
		'not-released': wording.releaseIt,
		differs: wording.whatIsServedIsOlderOrComes,
		missing: wording.theHeadIsNotWrittenIntoThe,
		doubled: wording.switchItOffInTheOtherTool,
		unknown: wording.anotherToolWritesIt
	};
	/** Where what is wrong stands on the cards as served: in what of them, and of whom. One that names its readers says so itself. */
	function partsOf({ tag, says }: ToldLook['probe']['findings'][number]): string[] {
		if (tag === undefined || !look || ALL_READERS.some(({ name }) => says.includes(name))) return [];
		const parts = { title: [], description: [], picture: [], place: [] } as Record<string, string[]>;
		for (const { reader, card } of look.probe.readers) {
			if (!card) continue;
			const passed = card.passedOver.some(({ from }) => from === tag);
			if (card.title.from === tag) parts.title!.push(nameOf(reader));
			if (card.description.from === tag) parts.description!.push(nameOf(reader));
			if (card.picture?.from === tag || passed) parts.picture!.push(nameOf(reader));
			if (card.placeFrom === tag) parts.place!.push(nameOf(reader));
		}
		const all = look.probe.readers.filter(({ card }) => card).length;
		return Object.entries(parts).flatMap(([part, readers]) =>
			readers.length === 0 ? [] : wording.theOf(part, readers.length === all ? wording.everyCard : readers.join(', '))
		);
	}
	/** What differs is what one came for; what something else writes (a viewport, say) is none of it. */
	const odd = $derived(look?.threeWay.filter(({ is }) => is !== 'same' && is !== 'unknown') ?? []);
	const same = $derived(look?.threeWay.filter(({ is }) => is === 'same') ?? []);
	const others = $derived(look?.threeWay.filter(({ is }) => is === 'unknown') ?? []);
	const when = (iso: string) => momentInWords(iso, 'medium');
	const readerOf = (id: string) => ALL_READERS.find((reader) => reader.id === id);
	const nameOf = (id: string) => readerOf(id)?.name ?? id;
</script>

{#snippet lines(all: ToldLook['threeWay'])}
	<table class="w-full table-fixed text-sm">
		<thead
			><tr
				><th class="border-t border-t-rule py-1 pr-3 pl-0 text-left align-top wrap-anywhere">{wording.tag}</th><th
					class="border-t border-t-rule py-1 pr-3 pl-0 text-left align-top wrap-anywhere">{wording.asWritten}</th
				><th class="border-t border-t-rule py-1 pr-3 pl-0 text-left align-top wrap-anywhere">{wording.asReleased}</th
				><th class="border-t border-t-rule py-1 pr-3 pl-0 text-left align-top wrap-anywhere">{wording.asServed}</th><th
					class="border-t border-t-rule py-1 pr-3 pl-0 text-left align-top wrap-anywhere">{wording.isOne}</th
				></tr
			></thead
		>
		<tbody>
			{#each all as one (one.tag)}
				<tr class={one.is}>
					<th class="border-t border-t-rule py-1 pr-3 pl-0 text-left align-top font-mono wrap-anywhere">{one.tag}</th>
					<td class="border-t border-t-rule py-1 pr-3 pl-0 text-left align-top wrap-anywhere">{one.written || '—'}</td>
					<td class="border-t border-t-rule py-1 pr-3 pl-0 text-left align-top wrap-anywhere"
						>{one.released === one.written ? '″' : one.released || '—'}</td
					>
					<td class="border-t border-t-rule py-1 pr-3 pl-0 text-left align-top wrap-anywhere"
						>{one.served === one.released ? '″' : one.served || '—'}{#if one.lines.length > 0}<span
								class="text-ink-soft"
							>
								{wording.line(one.lines.join(', '))}</span
							>{/if}</td
					>
					<td class="border-t border-t-rule py-1 pr-3 pl-0 text-left align-top wrap-anywhere"
						><strong class="in-[:not(.same)]:in-[:last-child]:text-flag">{IS[one.is]}</strong>{#if MEND[one.is]}<br
							/><span class="text-ink-soft">{MEND[one.is]}</span>{/if}</td
					>
				</tr>
			{/each}
		</tbody>
	</table>
{/snippet}
<div class="flex h-screen flex-col">
	<RoomBar {site} room="readers" path={look?.path} />
	<main class="flex-1 overflow-y-auto px-5.5 pt-3.5 pb-10" id="room">
		<h1 class="sr-only">{wording.whatReadersSee}</h1>
		<form
			class="flex max-w-245 gap-2.5"
			onsubmit={(event) => {
				event.preventDefault();
				void see();
			}}
		>
			<input
				class="flex-1 px-2.25 py-1.5 font-mono"
				aria-label={wording.anAddressOrThePathOfA}
				placeholder={wording.pasteAnAddressOrWriteThePath}
				bind:value={address}
			/>
			<Button look="main" disabled={busy || address.trim() === ''}
				>{busy ? wording.looking : look ? wording.lookAgain : wording.look}</Button
			>
			{#if look?.path}<Button href={benchAt(site, look.path)}>{wording.onTheBench}</Button>{/if}
		</form>
		<p class="mt-1 max-w-245 text-sm text-ink-soft" data-testid="via">
			{#if data.vias.length > 0}
				<label
					>{wording.askedAt}
					<Select
						look="bare"
						value={via}
						choices={[['', wording.thePublicName(data.site.base)], ...data.vias.map((one) => [one, one] as const)]}
						set={(chosen) => ((via = chosen), void see())}
					/></label
				>{via === '' ? '' : wording.underThePublicNameAsIfIt}
			{:else if data.standIn?.origin.startsWith('http')}
				{wording.askedAtWhichStandsInFor(data.standIn.origin, data.standIn.base)}
			{:else}
				{wording.askedAtASiteThatIsNot(data.site.base)}
				<span class="font-mono">--source http://127.0.0.1:8080</span>
				{wording.andWhereItIs}
			{/if}
		</p>
		{#if refused}<Refused>{refused}</Refused>{/if}
		{#if !look && !busy}
			<p class="lead mx-0 mt-6.5 mb-3 max-w-140 font-serif text-lg">
				{wording.thirteenReadersEachWith}
			</p>
			<ul class="readers">
				{#each ALL_READERS as reader (reader.id)}
					<li class="max-w-245 border-t border-t-rule px-0 py-1.25">
						<strong>{reader.name}</strong>, {kindOfReader(reader)}.
						<span class="text-ink-soft">{habitsInWords(reader).slice(0, 3).join(' ')}</span>
					</li>
				{/each}
			</ul>
		{/if}
		{#if look}
			<section class="mt-3 max-w-245 text-sm" aria-label={wording.theWayToThePage}>
				{#each hops as hop, at (at)}
					<div class="grid grid-cols-[76px_minmax(120px,1fr)_260px_64px] items-center gap-2.5">
						<span
							class="status font-semibold text-sea [&.bad]:text-gone"
							class:bad={hop.status >= 400 || hop.status === 0}>{hop.status || wording.noAnswer}</span
						>
						<span class="font-mono wrap-anywhere">{hop.address}</span>
						<span
							class="bar h-2 bg-sea"
							style:margin-left="{(hop.began / whole) * 100}%"
							style:width="{Math.max(1.5, (hop.took / whole) * 100)}%"
						></span>
						<span class="text-ink-soft">{wording.ms(hop.took.toFixed(0))}</span>
					</div>
				{/each}
				<p class="text-ink-soft">
					{wording.tagsServed(look.probe.tags.length)}{#if look.probe.picture}{look.probe.picture.facts
							? wording.thePictureIsKb(
									look.probe.picture.facts.width ?? 0,
									look.probe.picture.facts.height ?? 0,
									Math.round((look.probe.picture.facts.bytes ?? 0) / 1000)
								)
							: wording.thePicture(look.probe.picture.why ?? '')}{/if}{wording.lookedAt(
						when(look.probe.made)
					)}{#if look.before[0]}{wording.beforeThat(when(look.before[0].made))}{#if look.before[0].by}, {byWhom(
								look.before[0].by
							)}{/if}{/if}.
					<Button
						look="link"
						onclick={() =>
							look && saveFile(reportOf(look.probe), `what-readers-see-${look.probe.made.slice(0, 10)}.html`)}
						>{wording.saveAsAPageToHandOn}</Button
					>
				</p>
				{#if look.came.length > 0 || look.went.length > 0}
					<Disclosure label={wording.cameAndWentSinceTheLastLook(look.came.length, look.went.length)}>
						{#each look.came as one (one)}<p class="text-sea">+ {one}</p>{/each}
						{#each look.went as one (one)}<p class="text-gone">− {one}</p>{/each}
					</Disclosure>
				{/if}
			</section>
			<section class="findings mt-2.5 max-w-245" aria-label={wording.whatIsWrong} data-testid="served-findings">
				{#each look.probe.findings as one, at (at)}
					<p
						class="mx-0 my-1.25 border-l-5 border-l-rule-strong pl-2.25 [&.grave]:border-gone"
						class:grave={one.weight >= 6}
					>
						<strong>{one.says}.</strong>
						{one.mend}
						{#if one.line}<span class="text-ink-soft">{wording.line2(one.line)}</span>{/if}
						{#if partsOf(one).length > 0}<span class="text-ink-soft">{wording.itIsSeenIn(partsOf(one).join(', '))}</span
							>{/if}
					</p>
				{:else}<p class="mx-0 my-1.25 border-l-5 border-l-rule-strong pl-2.25">{nothingFound(look.probe)}</p>{/each}
			</section>
			<Toggles
				class="parts mt-4 mb-2.5 border-b border-b-rule-strong"
				label={wording.whatIsShown}
				value={part}
				choices={[
					['cards', wording.cardsAsServed],
					['tags', wording.writtenReleasedServed(odd.length > 0 ? wording.differ(odd.length) : '')],
					['head', wording.theHeadAsServed]
				]}
				set={(chosen) => (part = chosen)}
			/>
			{#if part === 'cards'}
				<section
					class="cards grid grid-cols-[repeat(auto-fill,minmax(270px,1fr))] gap-4.5"
					aria-label={wording.cardsAsServed}
				>
					{#each look.probe.readers as one (one.reader)}
						<div>
							{#if one.card}<ReaderCard card={one.card} {shown} />
							{:else}<p class="none border border-dashed border-rule-strong p-3.5">
									<strong>{nameOf(one.reader)}</strong>
									{one.isShutOut
										? one.robotsFail === undefined
											? wording.isShutOutByRobotsTxtAnd
											: wording.readsNothingWhileRobotsTxt(one.robotsFail)
										: wording.showsNoCardItCouldNotRead}
								</p>{/if}
							{#each one.card?.passedOver ?? [] as passed (passed.from + passed.address)}<p
									class="text-xs text-ink-soft"
								>
									{wording.notThePictureOf} <span class="font-mono">{passed.from}</span>{wording.it(passed.why)}
								</p>{/each}
							{#each look.cardsBefore.filter(({ reader }) => reader === one.reader) as before (before.reader)}
								<p class="before border-l-2 border-l-rule-strong pl-2 text-xs wrap-anywhere">
									<span class="text-ink-soft">{wording.atTheLastLook}</span>
									{#if before.shows}{before.shows.title || wording.noTitle}{#if before.shows.description}
											· {before.shows.description}{/if} ·
										<span class="font-mono">{before.shows.picture || wording.noPicture}</span
										>{:else}{wording.noCard2}{/if}
								</p>
							{/each}
							{#if one.byChance.length > 0}<p class="text-xs text-ink-soft">
									{wording.itTakesAPictureOfThePage(one.byChance.length)}
								</p>{/if}
							<Button
								look="link"
								class="text-xs"
								aria-expanded={told === one.reader}
								onclick={() => (told = told === one.reader ? '' : one.reader)}>{wording.itsHabits}</Button
							>
							{#if told === one.reader}
								<ul class="text-xs">
									{#each habitsInWords(readerOf(one.reader)!) as habit (habit)}<li>{habit}</li>{/each}
									<li class="font-mono">{wording.keptUnder(one.key)}</li>
								</ul>
							{/if}
						</div>
					{/each}
				</section>
			{:else if part === 'tags'}
				<section aria-label={wording.writtenReleasedServed2}>
					{#if look.threeWay.length === 0}<p class="text-ink-soft">
							{wording.thisAddressIsNoneOfTheSites}
						</p>
					{:else}
						{#if odd.length > 0}{@render lines(odd)}
						{:else}<p class="text-sea" data-testid="none-differs">
								{wording.nothingOfTheHeadDiffersItIs}
							</p>{/if}
						{#if same.length > 0}
							<Disclosure class="mt-2.5 text-sm" label={wording.theSameInAllThree(same.length)}
								>{@render lines(same)}</Disclosure
							>
						{/if}
						{#if others.length > 0}
							<Disclosure
								class="mt-2.5 text-sm"
								label={wording.writtenBySomethingElseAnd(others.map(({ tag }) => tag).join(', '))}
								>{@render lines(others)}</Disclosure
							>
						{/if}
					{/if}
				</section>
			{:else}
				<section aria-label={wording.theHeadAsServed}>
					<ol class="head list-decimal pl-11 font-mono text-xs wrap-anywhere whitespace-pre-wrap">
						{#each look.probe.head.split('\n') as line, at (at)}
							<li
								class="marker:text-ink-soft [&.tag]:bg-sea-wash"
								class:tag={look.probe.tags.some((one) => one.line === at + 1)}
							>
								{line}
							</li>
						{/each}
					</ol>
				</section>
			{/if}
		{/if}
		<KeptCards
			{site}
			look={(path) => {
				address = path;
				void see();
			}}
		/>
	</main>
</div>
