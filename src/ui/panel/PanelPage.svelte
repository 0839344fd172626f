<script lang="ts">
	import { wording } from '$ui/words/en/panel';
	import { onDestroy, onMount, tick, untrack } from 'svelte';
	import { describeFinding, findOnPage, keyOfKind, type Fields, kindOfReader } from '$core';
	import type { PageBench } from '$server/web/benchData';
	import ReaderCard from '$ui/cards/ReaderCard.svelte';
	import { lookAt, type Look } from '$ui/cards/pictureLook';
	import Disclosure from '$ui/parts/shown/Disclosure.svelte';
	import Select from '$ui/parts/select/Select.svelte';
	import { benchAt } from '$ui/places/rooms';
	import { Shares } from '$ui/share/shares.svelte';
	import BenchMessage from '$ui/bench/BenchMessage.svelte';
	import { Bench } from '$ui/workspace/bench.svelte';
	import { setBench } from '$ui/workspace/context';
	import { Neighbours } from '$ui/workspace/sharing';
	import PanelLine from './PanelLine.svelte';
	import { chosenReader, keepReader } from './reader';
	import { stateInWords } from './state';
	import type { PanelState } from './panel.svelte';

	/** One page: its card, what it says to search and to those it is shared with, what is weak, and how it stands. */
	let { data, typed, panel }: { data: PageBench; typed: Fields | undefined; panel: PanelState } = $props();

	const siteName = untrack(() => data.site.name);
	const neighbours = new Neighbours(siteName);
	const kept = () => {
		neighbours.tell();
		panel.kept();
	};
	const bench = untrack(() => new Bench(siteName, data, kept, () => panel.read()));
	setBench(bench);
	$effect.pre(() => {
		bench.data = data;
		untrack(() => {
			bench.drafts.findConflicts();
			// Let in again, what was not kept is.
			if (bench.drafts.saving === 'failed') void bench.drafts.settle();
		});
	});
	$effect.pre(() => void (bench.typed = typed));
	// What somebody typed in the editor beside it is on the screen: in the task after the frame that shows it.
	$effect(() => {
		void [typed, bench.working.cards];
		requestAnimationFrame(() => setTimeout(panel.shown));
	});
	onMount(() => neighbours.listen(() => void panel.read()));

	/** The tag whose own words are open; the one on the card first of all. */
	let open = $state<string | undefined>();
	function toggle(tag: string) {
		open = open === tag ? undefined : tag;
		bench.tag = tag;
	}
	function choose(tag: string) {
		[open, bench.tag] = [tag, tag];
		void tick().then(() =>
			document.querySelector(`[data-line="${CSS.escape(tag)}"]`)?.scrollIntoView({ block: 'nearest' })
		);
	}
	const signOf = (tag: string) => bench.lines.find((line) => line.tag === tag)?.sign;
	const ways = { choose, write: choose, signOf };

	let reader = $state(chosenReader());
	const card = $derived(bench.working.cards.find((one) => one.reader.id === reader) ?? bench.working.cards[0]);
	const others = $derived(bench.working.cards.filter((one) => one !== card));
	let showsAll = $state(false);
	function chooseReader(id: string) {
		reader = id;
		keepReader(id);
	}
	const shares = new Shares(siteName, (why) => (bench.message = why));
	function shown(address: string): Look {
		const { share } = bench.working;
		if (share?.recipe && share.address === address) return { src: shares.at('bench', share.recipe) };
		return lookAt(address, bench.working.site.base, data.standIn, bench.working.pictures);
	}

	const findings = $derived(
		findOnPage(bench.working.page, bench.working.told.head, bench.working.told.scope).filter(
			(found) => !data.suppressed.includes(keyOfKind(found))
		)
	);
	const GROUPS = [
		{ name: wording.inSearch, tags: ['title', 'description'] },
		{ name: wording.whereItIsShared, tags: ['og:title', 'og:description', 'og:image'] }
	] as const;
	const first = new Set<string>(GROUPS.flatMap(({ tags }) => tags));
	const lineOf = (tag: string) => bench.lines.find((line) => line.tag === tag);
	const rest = $derived(bench.lines.filter(({ tag }) => !first.has(tag)));
	let showsRest = $state(false);
	const standing = $derived(
		stateInWords({
			state: bench.working.page.state,
			isThere: data.isThere,
			isReleased: data.released !== null,
			differing: bench.lines.filter(({ isChanged }) => isChanged).length,
			isTyped: typed !== undefined
		})
	);
	const held = $derived((data.page.held ?? []).filter((name) => typed && Object.hasOwn(typed, name)));
	/** The frame goes, or another page comes: what is written is sent now, by what still lets the panel in at this page. */
	function leave() {
		(document.activeElement as HTMLElement | null)?.blur();
		bench.drafts.leave();
		for (const key of Object.keys(bench.drafts.all)) bench.drafts.discard(key);
	}
	onDestroy(leave);
</script>

<svelte:window onpagehide={leave} />

<article class="mx-auto flex max-w-130 flex-col gap-4 p-3">
	<header class="text-sm">
		<p class="flex items-baseline gap-2">
			<span class="min-w-0 flex-1 truncate font-mono text-xs" data-tip={data.page.path}>{data.page.path}</span>
			<a class="underline underline-offset-2 hover:text-sea" href={benchAt(siteName, data.page.path)} rel="noopener"
				>{wording.openInKephalon}</a
			>
		</p>
		<p class="text-ink-soft" data-testid="panel-state">{standing}</p>
		{#if held.length > 0}
			<p class="text-flag" data-testid="panel-held">
				{wording.writtenInKephalonSoWhatIs(held.join(', '))}
			</p>
		{/if}
	</header>
	<BenchMessage />

	<section aria-label={wording.itsCard}>
		<div class="mb-1.5 flex items-center gap-2 text-sm">
			<span class="text-ink-soft">{wording.asShownBy}</span>
			<Select
				look="bare"
				aria-label={wording.readerOfLinks}
				value={card?.reader.id ?? ''}
				choices={bench.working.cards.map(
					(one) => [one.reader.id, `${one.reader.name}, ${kindOfReader(one.reader)}`] as const
				)}
				set={chooseReader}
			/>
		</div>
		{#if card}<div class="[&_figcaption]:sr-only"><ReaderCard {card} {shown} {ways} /></div>{/if}
	</section>

	{#if findings.length > 0}
		<ul
			class="border-l-4 border-l-flag bg-flag-wash px-2.5 py-1.5 text-sm"
			aria-label={wording.whatIsWeak}
			data-testid="panel-findings"
		>
			{#each findings as found, at (at)}<li>{describeFinding(found)}</li>{/each}
		</ul>
	{:else if data.isThere || typed}
		<p class="text-sm text-ink-soft" data-testid="panel-findings">{wording.nothingWeakWasFoundInWhatIt}</p>
	{/if}

	{#each GROUPS as group (group.name)}
		<section>
			<h2 class="mb-1 text-sm font-semibold text-ink-soft">{group.name}</h2>
			<ul>
				{#each group.tags as tag (tag)}
					{@const line = lineOf(tag)}
					{#if line}<PanelLine {line} isOpen={open === tag} mayEdit={data.mayEdit} toggle={() => toggle(tag)} />{/if}
				{/each}
			</ul>
		</section>
	{/each}
	{#if rest.length > 0}
		<Disclosure label={wording.allOtherTags} class="text-sm" bind:open={showsRest}>
			<ul>
				{#if showsRest}
					{#each rest as line (line.tag)}
						<PanelLine {line} isOpen={open === line.tag} mayEdit={data.mayEdit} toggle={() => toggle(line.tag)} />
					{/each}
				{/if}
			</ul>
		</Disclosure>
	{/if}
	<Disclosure label={wording.allOtherReaders} class="text-sm" bind:open={showsAll}>
		{#if showsAll}
			<div class="mt-2 flex flex-col gap-4">
				{#each others as one (one.reader.id)}<ReaderCard card={one} {shown} {ways} />{/each}
			</div>
		{/if}
	</Disclosure>
</article>
