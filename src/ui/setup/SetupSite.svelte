<script lang="ts">
	import { wording } from '$ui/words/en/setup';
	import { counted } from '$ui/words/speaking';
	import Disclosure from '$ui/parts/shown/Disclosure.svelte';
	import Button from '$ui/parts/Button.svelte';
	import Refused from '$ui/parts/Refused.svelte';
	import { untrack } from 'svelte';
	import { describeFinding, toText, type WorstPages } from '$core';
	import { call, isRefused } from '$ui/client';
	import { Bench } from '$ui/workspace/bench.svelte';
	import type { BenchData } from '$ui/workspace/data';
	import { setBench } from '$ui/workspace/context';
	import ReaderCard from '$ui/cards/ReaderCard.svelte';
	import SetupContent from './SetupContent.svelte';
	import SiteSettings from '$ui/settings/SiteSettings.svelte';
	import { lookAt } from '$ui/cards/pictureLook';
	import { pagesInWords, type StandIn } from '$ui/parts/words';

	/** What is left to set up, each at any time; beside it the home page's card, and at the end the worst ten. */
	let {
		data,
		standIn,
		folders,
		goOn
	}: {
		data: BenchData;
		standIn: StandIn;
		/** The folders that content may be read from. */
		folders: readonly string[];
		goOn: (site: string) => void;
	} = $props();

	const bench = untrack(() => new Bench(data.site.name, data));
	setBench(bench);
	const siteName = untrack(() => data.site.name);
	let worst = $state.raw<WorstPages | undefined>();
	let looking = $state(false);
	let contentOpen = $state(false);

	// The set-up keeps what is set as one goes: nothing is released yet, and the worst ten tell its reach.
	$effect(() => {
		const waiting = Object.keys(bench.drafts.all);
		if (waiting.length === 0) return;
		const timer = setTimeout(() => waiting.forEach((key) => void bench.drafts.keep(key)), 700);
		return () => clearTimeout(timer);
	});
	$effect(() => {
		if (bench.data.site.name !== siteName) goOn(bench.data.site.name);
	});

	const shown = (address: string) => lookAt(address, bench.working.site.base, standIn, bench.working.pictures);
	const field = (name: string) => bench.working.site.fields[name] !== undefined;
	const steps = $derived([
		{ id: 'content', name: wording.content, told: pagesInWords(bench.data.count.all), done: bench.data.count.all > 0 },
		{
			id: 'address',
			name: wording.nameAddressLanguages,
			told: bench.working.site.base,
			done: bench.working.site.base.startsWith('https://')
		},
		{
			id: 'words',
			name: wording.words,
			told: field('description') ? wording.described : wording.noDescriptionYet,
			done: field('description')
		},
		{
			id: 'pictures',
			name: wording.pictures,
			told: field('picture') ? wording.aSharePicture : wording.noSharePictureYet,
			done: field('picture')
		},
		{
			id: 'people',
			name: wording.peopleAndCards,
			told: field('publisher') ? toText(bench.working.site.fields.publisher) : wording.noPublisherYet,
			done: field('publisher')
		},
		{
			id: 'worst',
			name: wording.theWorstTen,
			told: worst ? wording.ofToMend(worst.faulty, pagesInWords(worst.pages)) : wording.notLookedAtYet,
			done: worst?.faulty === 0
		}
	]);

	async function look() {
		looking = true;
		for (const key of Object.keys(bench.drafts.all)) await bench.drafts.keep(key);
		const found = await call('GET /sites/{site}/worst', { site: bench.data.site.name });
		looking = false;
		if (isRefused(found)) bench.message = found.refused;
		else worst = found;
	}
	/** The worst page that has a fault, to mend it there. */
	const withFault = (code: string) =>
		(worst?.worst.find(({ findings }) => findings.some((found) => found.code === code)) ?? worst?.worst[0])?.path ??
		'/';
	const benchAt = (path: string, tag: string) =>
		`/bench/${encodeURIComponent(bench.data.site.name)}?page=${encodeURIComponent(path)}&tag=${encodeURIComponent(tag)}`;
	const saved = $derived(
		bench.drafts.saving === 'saving' || bench.drafts.waiting > 0
			? (Object.values(bench.drafts.all).find((draft) => draft.refused)?.refused ?? wording.keeping)
			: bench.drafts.savedAt
				? wording.allKeptLastAt(bench.drafts.savedAt)
				: wording.keptAsYouGo
	);
	// The worst ten as the site is when one comes.
	$effect(() => void untrack(look));
</script>

<div
	class="site grid grid-cols-[232px_minmax(0,1fr)_minmax(280px,360px)] max-wide:grid-cols-[190px_minmax(0,1fr)] max-narrow:grid-cols-1"
>
	<nav class="sticky top-0 max-h-screen self-start overflow-y-auto px-3.5 py-4.5" aria-label={wording.steps}>
		<ol>
			{#each steps as step (step.id)}
				<li>
					<a
						class="flex gap-2.25 border-l-3 border-l-rule px-2.25 py-1.25 font-semibold hover:bg-sunk [&.done]:border-l-sea"
						href="#{step.id}"
						class:done={step.done}
					>
						<span class="sign w-3 text-sea" aria-hidden="true">{step.done ? '✓' : ''}</span>
						<span
							>{step.name}<span class="block max-w-40 overflow-hidden text-sm font-normal text-ellipsis text-ink-soft"
								>{step.told}</span
							></span
						>
					</a>
				</li>
			{/each}
		</ol>
		<p
			class="saved mt-3 block max-w-40 overflow-hidden pl-3 text-sm font-normal text-ellipsis text-ink-soft"
			role="status"
		>
			{saved}
		</p>
		{#if bench.message}<Refused>{bench.message}</Refused>{/if}
	</nav>
	<main class="bg-sheet px-6.5 pt-1 pb-15 [border-inline:1px_solid_var(--color-rule)]">
		<section class="scroll-mt-2 border-b border-b-rule px-0 pt-4 pb-4.5 last:border-b-0" id="content">
			<h2 class="font-serif text-lg">{wording.content}</h2>
			<p>
				{wording.ofThemLive(pagesInWords(bench.data.count.all), counted(bench.data.count.live))}
			</p>
			<Disclosure strong bind:open={contentOpen} label={wording.readItAgainOrMoreOfIt}>
				{#if contentOpen}<SetupContent name={bench.data.site.name} base={bench.data.site.base} {folders} {goOn} />{/if}
			</Disclosure>
		</section>
		<section class="scroll-mt-2 border-b border-b-rule px-0 pt-4 pb-4.5 last:border-b-0" id="address">
			<h2 class="font-serif text-lg">{wording.nameAddressLanguages}</h2>
			<SiteSettings only="address" />
		</section>
		<section class="scroll-mt-2 border-b border-b-rule px-0 pt-4 pb-4.5 last:border-b-0" id="words">
			<h2 class="font-serif text-lg">{wording.words}</h2>
			<SiteSettings only="words" />
		</section>
		<section class="scroll-mt-2 border-b border-b-rule px-0 pt-4 pb-4.5 last:border-b-0" id="pictures">
			<h2 class="font-serif text-lg">{wording.pictures}</h2>
			<SiteSettings only="pictures" />
		</section>
		<section class="scroll-mt-2 border-b border-b-rule px-0 pt-4 pb-4.5 last:border-b-0" id="people">
			<h2 class="font-serif text-lg">{wording.peopleAndCards}</h2>
			<SiteSettings only="people" />
		</section>
		<section class="scroll-mt-2 border-b border-b-rule px-0 pt-4 pb-4.5 last:border-b-0" id="worst">
			<h2 class="font-serif text-lg">{wording.theWorstTenCardsAsTheyWould}</h2>
			<p>
				<Button disabled={looking} onclick={look}>{looking ? wording.lookingAtEveryPage : wording.lookAgain}</Button>
			</p>
			{#if worst}
				{#if worst.faulty === 0}
					<p class="mt-2">
						{wording.nothingToMendOn(pagesInWords(worst.pages))}
						<Button look="link" href="/bench/{encodeURIComponent(bench.data.site.name)}"
							>{wording.toTheBenchToRelease}</Button
						>
					</p>
				{:else}
					<h3 class="mt-3 font-semibold">{wording.whatWouldMendMost}</h3>
					<ol class="mends mx-0 mt-1 mb-3.5 list-inside list-decimal">
						{#each worst.mends.slice(0, 5) as mend (mend.code)}
							<li class="mt-0.75">
								<strong>{pagesInWords(mend.pages)}</strong>
								{mend.mend}
								<Button look="link" class="font-mono" href={benchAt(withFault(mend.code), mend.tag ?? 'title')}
									>{mend.tag}</Button
								>
							</li>
						{/each}
					</ol>
					<ul
						class="cards grid grid-cols-[repeat(auto-fill,minmax(260px,1fr))] gap-5 [&_figcaption]:hidden"
						data-testid="worst"
					>
						{#each worst.worst as page (page.path)}
							<li class="min-w-0 wrap-anywhere">
								<Button look="link" class="font-mono" href={benchAt(page.path, page.findings[0]?.tag ?? 'title')}
									>{page.path}</Button
								>
								<p class="mb-1.25 text-sm text-gone">{page.findings.map(describeFinding).join('. ')}.</p>
								<ReaderCard card={page.card} {shown} />
							</li>
						{/each}
					</ul>
				{/if}
			{/if}
		</section>
	</main>
	<!-- It scrolls, so it takes the focus itself. -->
	<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
	<aside
		class="sticky top-0 flex max-h-screen flex-col gap-4 self-start overflow-y-auto px-3.5 py-4.5 max-wide:static max-wide:col-span-full max-wide:max-h-none"
		aria-label={wording.theHomePageAsItWouldBe}
		tabindex="0"
	>
		<p class="text-ink-soft">{wording.thePageAsItWouldBeShared(bench.data.page.path)}</p>
		{#each bench.working.cards.filter( ({ reader }) => ['gangway', 'fathom', 'galley', 'porthole'].includes(reader.id) ) as card (card.reader.id)}<ReaderCard
				{card}
				{shown}
			/>{/each}
	</aside>
</div>
