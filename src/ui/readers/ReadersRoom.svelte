<script lang="ts">
	import Toggles from '$ui/parts/Toggles.svelte';
	import Disclosure from '$ui/parts/shown/Disclosure.svelte';
	import Button from '$ui/parts/Button.svelte';
	import Select from '$ui/parts/select/Select.svelte';
	import Refused from '$ui/parts/Refused.svelte';
	import { byWhom } from '$ui/people/byWhom';
	import { onMount, untrack } from 'svelte';
	import { replaceState } from '$app/navigation';
	import { ALL_READERS, habitsInWords, nothingFound, reportOf } from '$core';
	import { saveFile } from './saveFile';
	import type { ProbeLook } from '$server/probes/look';
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
	let look = $state<ProbeLook | undefined>();
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
	const IS: Readonly<Record<ProbeLook['threeWay'][number]['is'], string>> = {
		same: 'the same',
		'not-released': 'not released yet',
		differs: 'served otherwise',
		missing: 'not served',
		doubled: 'served twice',
		unknown: 'written by something else'
	};
	const MEND: Readonly<Partial<Record<ProbeLook['threeWay'][number]['is'], string>>> = {
		'not-released': 'Release it.',
		differs: 'What is served is older, or comes from a cache: look again in a while.',
		missing: 'The head is not written into the page as served.',
		doubled: 'Switch it off in the other tool.',
		unknown: 'Another tool writes it.'
	};
	/** Where what is wrong stands on the cards as served: in what of them, and of whom. One that names its readers says so itself. */
	function partsOf({ tag, says }: ProbeLook['probe']['findings'][number]): string[] {
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
			readers.length === 0 ? [] : `the ${part} of ${readers.length === all ? 'every card' : readers.join(', ')}`
		);
	}
	/** What differs is what one came for; what something else writes (a viewport, say) is none of it. */
	const odd = $derived(look?.threeWay.filter(({ is }) => is !== 'same' && is !== 'unknown') ?? []);
	const same = $derived(look?.threeWay.filter(({ is }) => is === 'same') ?? []);
	const others = $derived(look?.threeWay.filter(({ is }) => is === 'unknown') ?? []);
	const when = (iso: string) => new Date(iso).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'medium' });
	const readerOf = (id: string) => ALL_READERS.find((reader) => reader.id === id);
	const nameOf = (id: string) => readerOf(id)?.name ?? id;
</script>

{#snippet lines(all: ProbeLook['threeWay'])}
	<table class="w-full table-fixed text-sm">
		<thead
			><tr
				><th class="border-t border-t-rule py-1 pr-3 pl-0 text-left align-top wrap-anywhere">Tag</th><th
					class="border-t border-t-rule py-1 pr-3 pl-0 text-left align-top wrap-anywhere">As written</th
				><th class="border-t border-t-rule py-1 pr-3 pl-0 text-left align-top wrap-anywhere">As released</th><th
					class="border-t border-t-rule py-1 pr-3 pl-0 text-left align-top wrap-anywhere">As served</th
				><th class="border-t border-t-rule py-1 pr-3 pl-0 text-left align-top wrap-anywhere">Is</th></tr
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
								line {one.lines.join(', ')}</span
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
		<h1 class="sr-only">What readers see</h1>
		<form
			class="flex max-w-245 gap-2.5"
			onsubmit={(event) => {
				event.preventDefault();
				void see();
			}}
		>
			<input
				class="flex-1 px-2.25 py-1.5 font-mono"
				aria-label="An address, or the path of a page"
				placeholder="Paste an address, or write the path of a page: /about"
				bind:value={address}
			/>
			<Button look="main" disabled={busy || address.trim() === ''}
				>{busy ? 'Looking …' : look ? 'Look again' : 'Look'}</Button
			>
			{#if look?.path}<Button href={benchAt(site, look.path)}>On the bench</Button>{/if}
		</form>
		<p class="mt-1 max-w-245 text-sm text-ink-soft" data-testid="via">
			{#if data.vias.length > 0}
				<label
					>Asked at <Select
						look="bare"
						value={via}
						choices={[['', `${data.site.base}, the public name`], ...data.vias.map((one) => [one, one] as const)]}
						set={(chosen) => ((via = chosen), void see())}
					/></label
				>{via === '' ? '' : ' under the public name, as if it stood there.'}
			{:else if data.standIn?.origin.startsWith('http')}
				Asked at {data.standIn.origin}, which stands in for {data.standIn.base}.
			{:else}
				Asked at {data.site.base}. A site that is not there yet: start Kephalon with
				<span class="font-mono">--source http://127.0.0.1:8080</span> and where it is.
			{/if}
		</p>
		{#if refused}<Refused>{refused}</Refused>{/if}
		{#if !look && !busy}
			<p class="lead mx-0 mt-6.5 mb-3 max-w-140 font-serif text-lg">
				Thirteen readers, each with habits of its own. Paste a link, and see what every one of them makes of it, and
				why.
			</p>
			<ul class="readers">
				{#each ALL_READERS as reader (reader.id)}
					<li class="max-w-245 border-t border-t-rule px-0 py-1.25">
						<strong>{reader.name}</strong>, {reader.kind}.
						<span class="text-ink-soft">{habitsInWords(reader).slice(0, 3).join(' ')}</span>
					</li>
				{/each}
			</ul>
		{/if}
		{#if look}
			<section class="mt-3 max-w-245 text-sm" aria-label="The way to the page">
				{#each hops as hop, at (at)}
					<div class="grid grid-cols-[76px_minmax(120px,1fr)_260px_64px] items-center gap-2.5">
						<span
							class="status font-semibold text-sea [&.bad]:text-gone"
							class:bad={hop.status >= 400 || hop.status === 0}>{hop.status || 'no answer'}</span
						>
						<span class="font-mono wrap-anywhere">{hop.address}</span>
						<span
							class="bar h-2 bg-sea"
							style:margin-left="{(hop.began / whole) * 100}%"
							style:width="{Math.max(1.5, (hop.took / whole) * 100)}%"
						></span>
						<span class="text-ink-soft">{hop.took.toFixed(0)} ms</span>
					</div>
				{/each}
				<p class="text-ink-soft">
					{look.probe.tags.length} tags served{#if look.probe.picture}{look.probe.picture.facts
							? `; the picture is ${look.probe.picture.facts.width} × ${look.probe.picture.facts.height}, ${Math.round((look.probe.picture.facts.bytes ?? 0) / 1000)} kB`
							: `; the picture ${look.probe.picture.why}`}{/if}. Looked at {when(look.probe.made)}{#if look.before[0]},
						before that {when(look.before[0].made)}{#if look.before[0].by}, {byWhom(look.before[0].by)}{/if}{/if}.
					<Button
						look="link"
						onclick={() =>
							look && saveFile(reportOf(look.probe), `what-readers-see-${look.probe.made.slice(0, 10)}.html`)}
						>Save as a page to hand on</Button
					>
				</p>
				{#if look.came.length > 0 || look.went.length > 0}
					<Disclosure label="{look.came.length} came and {look.went.length} went since the last look">
						{#each look.came as one (one)}<p class="text-sea">+ {one}</p>{/each}
						{#each look.went as one (one)}<p class="text-gone">− {one}</p>{/each}
					</Disclosure>
				{/if}
			</section>
			<section class="findings mt-2.5 max-w-245" aria-label="What is wrong" data-testid="served-findings">
				{#each look.probe.findings as one, at (at)}
					<p
						class="mx-0 my-1.25 border-l-5 border-l-rule-strong pl-2.25 [&.grave]:border-gone"
						class:grave={one.weight >= 6}
					>
						<strong>{one.says}.</strong>
						{one.mend}
						{#if one.line}<span class="text-ink-soft">Line {one.line}.</span>{/if}
						{#if partsOf(one).length > 0}<span class="text-ink-soft">It is seen in {partsOf(one).join(', ')}.</span
							>{/if}
					</p>
				{:else}<p class="mx-0 my-1.25 border-l-5 border-l-rule-strong pl-2.25">{nothingFound(look.probe)}</p>{/each}
			</section>
			<Toggles
				class="parts mt-4 mb-2.5 border-b border-b-rule-strong"
				label="What is shown"
				value={part}
				choices={[
					['cards', 'Cards as served'],
					['tags', `Written, released, served${odd.length > 0 ? ` (${odd.length} differ)` : ''}`],
					['head', 'The head as served']
				]}
				set={(chosen) => (part = chosen)}
			/>
			{#if part === 'cards'}
				<section
					class="cards grid grid-cols-[repeat(auto-fill,minmax(270px,1fr))] gap-4.5"
					aria-label="Cards as served"
				>
					{#each look.probe.readers as one (one.reader)}
						<div>
							{#if one.card}<ReaderCard card={one.card} {shown} />
							{:else}<p class="none border border-dashed border-rule-strong p-3.5">
									<strong>{nameOf(one.reader)}</strong>
									{one.isShutOut
										? one.robotsFail === undefined
											? 'is shut out by robots.txt, and shows no card.'
											: `reads nothing while robots.txt ${one.robotsFail}, and shows no card.`
										: 'shows no card: it could not read the page.'}
								</p>{/if}
							{#each one.card?.passedOver ?? [] as passed (passed.from + passed.address)}<p
									class="text-xs text-ink-soft"
								>
									Not the picture of <span class="font-mono">{passed.from}</span>: it {passed.why}.
								</p>{/each}
							{#each look.cardsBefore.filter(({ reader }) => reader === one.reader) as before (before.reader)}
								<p class="before border-l-2 border-l-rule-strong pl-2 text-xs wrap-anywhere">
									<span class="text-ink-soft">At the last look:</span>
									{#if before.shows}{before.shows.title || 'no title'}{#if before.shows.description}
											· {before.shows.description}{/if} ·
										<span class="font-mono">{before.shows.picture || 'no picture'}</span>{:else}no card{/if}
								</p>
							{/each}
							{#if one.byChance.length > 0}<p class="text-xs text-ink-soft">
									It takes a picture of the page by chance: {one.byChance.length} could stand here.
								</p>{/if}
							<Button
								look="link"
								class="text-xs"
								aria-expanded={told === one.reader}
								onclick={() => (told = told === one.reader ? '' : one.reader)}>Its habits</Button
							>
							{#if told === one.reader}
								<ul class="text-xs">
									{#each habitsInWords(readerOf(one.reader)!) as habit (habit)}<li>{habit}</li>{/each}
									<li class="font-mono">kept under {one.key}</li>
								</ul>
							{/if}
						</div>
					{/each}
				</section>
			{:else if part === 'tags'}
				<section aria-label="Written, released, served">
					{#if look.threeWay.length === 0}<p class="text-ink-soft">
							This address is none of the site’s: there is nothing to compare it with.
						</p>
					{:else}
						{#if odd.length > 0}{@render lines(odd)}
						{:else}<p class="text-sea" data-testid="none-differs">
								Nothing of the head differs: it is served as it was released, and written as it stands there.
							</p>{/if}
						{#if same.length > 0}
							<Disclosure class="mt-2.5 text-sm" label="The same in all three: {same.length}"
								>{@render lines(same)}</Disclosure
							>
						{/if}
						{#if others.length > 0}
							<Disclosure
								class="mt-2.5 text-sm"
								label="Written by something else, and none of the head’s business: {others
									.map(({ tag }) => tag)
									.join(', ')}">{@render lines(others)}</Disclosure
							>
						{/if}
					{/if}
				</section>
			{:else}
				<section aria-label="The head as served">
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
