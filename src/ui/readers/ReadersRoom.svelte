<script lang="ts">
	import { byWhom } from '$ui/people/byWhom';
	import { onMount, untrack } from 'svelte';
	import { replaceState } from '$app/navigation';
	import { ALL_READERS, habitsInWords, nothingFound, reportOf } from '$core';
	import { saveFile } from './saveFile';
	import type { ProbeLook } from '$server/probes/look';
	import { call, isRefused } from '../client';
	import { lookAt } from '$ui/cards/pictureLook';
	import ReaderCard from '$ui/cards/ReaderCard.svelte';
	import { benchAt, roomAt } from '$ui/rooms/rooms';
	import KeptCards from './KeptCards.svelte';
	import RoomBar from '$ui/rooms/RoomBar.svelte';

	/** What do readers really see? An address is fetched as each of them would, and told completely. */
	interface Data {
		readonly site: { readonly name: string; readonly base: string };
		readonly wanted: string;
		readonly standIn: { readonly base: string; readonly origin: string } | null;
	}
	let { data }: { data: Data } = $props();

	const site = untrack(() => data.site.name);
	let address = $state(untrack(() => data.wanted));
	let look = $state<ProbeLook | undefined>();
	let refused = $state('');
	let busy = $state(false);
	let part = $state<'cards' | 'tags' | 'head'>('cards');
	/** The reader whose habits are told. */
	let told = $state('');

	async function see() {
		if (address.trim() === '') return;
		busy = true;
		const answer = await call('POST /sites/{site}/probe', { site, body: { address: address.trim() } });
		busy = false;
		refused = isRefused(answer) ? answer.refused : '';
		if (isRefused(answer)) return;
		look = answer;
		const name = address.startsWith('/') ? 'page' : 'address';
		replaceState(`${roomAt('readers', site)}?${new URLSearchParams({ [name]: address.trim() })}`, {});
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
	const odd = $derived(look?.threeWay.filter((one) => one.is !== 'same') ?? []);
	const when = (iso: string) => new Date(iso).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'medium' });
	const readerOf = (id: string) => ALL_READERS.find((reader) => reader.id === id);
	const nameOf = (id: string) => readerOf(id)?.name ?? id;
</script>

<div class="whole-screen">
	<RoomBar {site} room="readers" path={look?.path} />
	<main id="room">
		<h1 class="sr-only">What readers see</h1>
		<form
			onsubmit={(event) => {
				event.preventDefault();
				void see();
			}}
		>
			<input
				class="mono"
				aria-label="An address, or the path of a page"
				placeholder="Paste an address, or write the path of a page: /about"
				bind:value={address}
			/>
			<button class="main-button" disabled={busy || address.trim() === ''}
				>{busy ? 'Looking …' : look ? 'Look again' : 'Look'}</button
			>
			{#if look?.path}<a class="plain-button" href={benchAt(site, look.path)}>On the bench</a>{/if}
		</form>
		{#if refused}<p class="refused" role="alert">{refused}</p>{/if}
		{#if !look && !busy}
			<p class="lead serif">
				Thirteen readers, each with habits of its own. Paste a link, and see what every one of them makes of it, and
				why.
			</p>
			<ul class="readers">
				{#each ALL_READERS as reader (reader.id)}
					<li>
						<strong>{reader.name}</strong>, {reader.kind}.
						<span class="quiet">{habitsInWords(reader).slice(0, 3).join(' ')}</span>
					</li>
				{/each}
			</ul>
		{/if}
		{#if look}
			<section class="way" aria-label="The way to the page">
				{#each hops as hop, at (at)}
					<div class="hop">
						<span class="status" class:bad={hop.status >= 400 || hop.status === 0}>{hop.status || 'no answer'}</span>
						<span class="mono">{hop.address}</span>
						<span
							class="bar"
							style:margin-left="{(hop.began / whole) * 100}%"
							style:width="{Math.max(1.5, (hop.took / whole) * 100)}%"
						></span>
						<span class="quiet">{hop.took.toFixed(0)} ms</span>
					</div>
				{/each}
				<p class="quiet">
					{look.probe.tags.length} tags served{#if look.probe.picture}{look.probe.picture.facts
							? `; the picture is ${look.probe.picture.facts.width} × ${look.probe.picture.facts.height}, ${Math.round((look.probe.picture.facts.bytes ?? 0) / 1000)} kB`
							: `; the picture ${look.probe.picture.why}`}{/if}. Looked at {when(look.probe.made)}{#if look.before[0]},
						before that {when(look.before[0].made)}{#if look.before[0].by}, {byWhom(look.before[0].by)}{/if}{/if}.
					<button
						class="link"
						onclick={() =>
							look && saveFile(reportOf(look.probe), `what-readers-see-${look.probe.made.slice(0, 10)}.html`)}
						>Save as a page to hand on</button
					>
				</p>
				{#if look.came.length > 0 || look.went.length > 0}
					<details>
						<summary>{look.came.length} came and {look.went.length} went since the last look</summary>
						{#each look.came as one (one)}<p class="came">+ {one}</p>{/each}
						{#each look.went as one (one)}<p class="went">− {one}</p>{/each}
					</details>
				{/if}
			</section>
			<section class="findings" aria-label="What is wrong" data-testid="served-findings">
				{#each look.probe.findings as one, at (at)}
					<p class:grave={one.weight >= 6}>
						<strong>{one.says}.</strong>
						{one.mend}
						{#if one.line}<span class="quiet">Line {one.line}.</span>{/if}
						{#if partsOf(one).length > 0}<span class="quiet">It is seen in {partsOf(one).join(', ')}.</span>{/if}
					</p>
				{:else}<p>{nothingFound(look.probe)}</p>{/each}
			</section>
			<div class="parts" role="group" aria-label="What is shown">
				<button aria-pressed={part === 'cards'} onclick={() => (part = 'cards')}>Cards as served</button>
				<button aria-pressed={part === 'tags'} onclick={() => (part = 'tags')}
					>Written, released, served{odd.length > 0 ? ` (${odd.length} differ)` : ''}</button
				>
				<button aria-pressed={part === 'head'} onclick={() => (part = 'head')}>The head as served</button>
			</div>
			{#if part === 'cards'}
				<section class="cards" aria-label="Cards as served">
					{#each look.probe.readers as one (one.reader)}
						<div>
							{#if one.card}<ReaderCard card={one.card} {shown} />
							{:else}<p class="none">
									<strong>{nameOf(one.reader)}</strong>
									{one.isShutOut
										? one.robotsFail === undefined
											? 'is shut out by robots.txt, and shows no card.'
											: `reads nothing while robots.txt ${one.robotsFail}, and shows no card.`
										: 'shows no card: it could not read the page.'}
								</p>{/if}
							{#each one.card?.passedOver ?? [] as passed (passed.from + passed.address)}<p class="quiet small">
									Not the picture of <span class="mono">{passed.from}</span>: it {passed.why}.
								</p>{/each}
							{#each look.cardsBefore.filter(({ reader }) => reader === one.reader) as before (before.reader)}
								<p class="before small">
									<span class="quiet">At the last look:</span>
									{#if before.shows}{before.shows.title || 'no title'}{#if before.shows.description}
											· {before.shows.description}{/if} ·
										<span class="mono">{before.shows.picture || 'no picture'}</span>{:else}no card{/if}
								</p>
							{/each}
							{#if one.byChance.length > 0}<p class="quiet small">
									It takes a picture of the page by chance: {one.byChance.length} could stand here.
								</p>{/if}
							<button
								class="link small"
								aria-expanded={told === one.reader}
								onclick={() => (told = told === one.reader ? '' : one.reader)}>Its habits</button
							>
							{#if told === one.reader}
								<ul class="small">
									{#each habitsInWords(readerOf(one.reader)!) as habit (habit)}<li>{habit}</li>{/each}
									<li class="mono">kept under {one.key}</li>
								</ul>
							{/if}
						</div>
					{/each}
				</section>
			{:else if part === 'tags'}
				<section aria-label="Written, released, served">
					{#if look.threeWay.length === 0}<p class="quiet">
							This address is none of the site’s: there is nothing to compare it with.
						</p>
					{:else}
						<table>
							<thead><tr><th>Tag</th><th>As written</th><th>As released</th><th>As served</th><th>Is</th></tr></thead>
							<tbody>
								{#each [...odd, ...look.threeWay.filter((one) => one.is === 'same')] as one (one.tag)}
									<tr class={one.is}>
										<th class="mono">{one.tag}</th>
										<td>{one.written || '—'}</td>
										<td>{one.released === one.written ? '″' : one.released || '—'}</td>
										<td
											>{one.served === one.released ? '″' : one.served || '—'}{#if one.lines.length > 0}<span
													class="quiet"
												>
													line {one.lines.join(', ')}</span
												>{/if}</td
										>
										<td
											><strong>{IS[one.is]}</strong>{#if MEND[one.is]}<br /><span class="quiet">{MEND[one.is]}</span
												>{/if}</td
										>
									</tr>
								{/each}
							</tbody>
						</table>
					{/if}
				</section>
			{:else}
				<section aria-label="The head as served">
					<ol class="head mono">
						{#each look.probe.head.split('\n') as line, at (at)}
							<li class:tag={look.probe.tags.some((one) => one.line === at + 1)}>{line}</li>
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

<style>
	main {
		flex: 1;
		overflow-y: auto;
		padding: 14px 22px 40px;
	}
	form {
		display: flex;
		gap: 10px;
		max-width: 980px;
	}
	form input {
		flex: 1;
		padding: 6px 9px;
	}
	.lead {
		margin: 26px 0 12px;
		max-width: 560px;
		font-size: 19px;
	}
	.readers li {
		border-top: 1px solid var(--rule);
		padding: 5px 0;
		max-width: 980px;
	}
	.way {
		margin-top: 12px;
		max-width: 980px;
		font-size: 13px;
	}
	.hop {
		display: grid;
		grid-template-columns: 76px minmax(120px, 1fr) 260px 64px;
		gap: 10px;
		align-items: center;
	}
	.hop .mono {
		overflow-wrap: anywhere;
	}
	.status {
		font-weight: 600;
		color: var(--sea);
	}
	.status.bad {
		color: var(--gone);
	}
	.bar {
		height: 8px;
		background: var(--sea);
	}
	.came {
		color: var(--sea);
	}
	.went {
		color: var(--gone);
	}
	.findings {
		margin-top: 10px;
		max-width: 980px;
	}
	.findings p {
		border-left: 5px solid var(--rule-strong);
		margin: 5px 0;
		padding-left: 9px;
	}
	.findings .grave {
		border-color: var(--gone);
	}
	.parts {
		display: flex;
		gap: 18px;
		margin: 16px 0 10px;
		border-bottom: 1px solid var(--rule-strong);
	}
	.parts button {
		border-bottom: 3px solid transparent;
		padding: 3px 1px;
		color: var(--ink-soft);
	}
	.parts [aria-pressed='true'] {
		border-bottom-color: var(--sea);
		font-weight: 600;
		color: var(--ink);
	}
	.cards {
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(270px, 1fr));
		gap: 18px;
	}
	.none {
		border: 1px dashed var(--rule-strong);
		padding: 14px;
	}
	.small {
		font-size: 12px;
	}
	table {
		width: 100%;
		font-size: 13px;
		table-layout: fixed;
	}
	th,
	td {
		border-top: 1px solid var(--rule);
		padding: 4px 12px 4px 0;
		text-align: left;
		vertical-align: top;
		overflow-wrap: anywhere;
	}
	tr:not(.same) td:last-child strong {
		color: var(--flag);
	}
	.head {
		padding-left: 44px;
		font-size: 12px;
		list-style: decimal;
		overflow-wrap: anywhere;
		white-space: pre-wrap;
	}
	.head li::marker {
		color: var(--ink-soft);
	}
	.head .tag {
		background: var(--sea-wash);
	}
	.before {
		border-left: 2px solid var(--rule-strong);
		padding-left: 8px;
		overflow-wrap: anywhere;
	}
</style>
