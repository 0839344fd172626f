<script lang="ts">
	import { wording } from '$ui/words/en/share';
	import {
		describeFinding,
		describeMend,
		findInShare,
		HARD_KINDS,
		Resolver,
		STARTING_LAYOUTS,
		type HardPage,
		type Page,
		type Picture,
		type ShareLayout,
		labelled
	} from '$core';
	import { call, isRefused } from '$ui/client';
	import { benchInView } from '$ui/workspace/context';
	import type { Part } from './shareLayout';
	import type { Shares } from './shares.svelte';
	import ShareStage from './ShareStage.svelte';

	/** The share picture of the page in view, and of the pages of its type that are hardest on the layout. */
	let { shares, chosen = $bindable(), go }: { shares: Shares; chosen: Part; go: (path: string) => void } = $props();
	const bench = benchInView();

	const layout = $derived(bench.working.type?.layout);
	const label = $derived((bench.working.type?.label ?? bench.working.page.type).toLowerCase());
	const set = (next: ShareLayout) => bench.change('type', { layout: next });
	const weak = $derived(
		findInShare(bench.working.share?.recipe, bench.working.scope.shareLead(), bench.data.page.path)
	);
	const alt = $derived(bench.working.share?.alt ?? '');

	/** The hard pages of the type in view, with what is needed to draw them. */
	interface Hard {
		readonly found: HardPage;
		readonly page: Page;
		readonly pictures: readonly Picture[];
	}
	let hard = $state.raw<readonly Hard[]>([]);
	let hardOf = $state('');
	$effect(() => {
		const type = bench.data.page.type;
		if (layout && hardOf !== type) void findHard(type);
	});
	async function findHard(type: string) {
		hardOf = type;
		hard = [];
		const found = await call('GET /sites/{site}/hard', { site: bench.data.site.name, query: { type } });
		if (isRefused(found)) return;
		const one = found.filter(({ path }, at) => found.findIndex((other) => other.path === path) === at);
		const pages = await Promise.all(
			one.slice(0, MOST_HARD).map(async (page) => ({
				page,
				told: await call('GET /sites/{site}/page', { site: bench.data.site.name, query: { path: page.path } })
			}))
		);
		if (hardOf === type) hard = pages.flatMap(({ page, told }) => (isRefused(told) ? [] : [{ found: page, ...told }]));
	}
	const MOST_HARD = 4;
	const drawn = $derived(
		hard.map(({ found, page, pictures }) => {
			const known = [
				...bench.working.pictures,
				...pictures.filter(({ src }) => !bench.working.pictures.some((one) => one.src === src))
			];
			const resolver = new Resolver(
				{ site: bench.working.site, types: bench.working.types, pictures: known },
				new Date().toISOString()
			);
			const scope = resolver.evaluate(page);
			const share = scope.sharePicture();
			return { found, share, weak: findInShare(share?.recipe, scope.shareLead(), page.path) };
		})
	);
	const tried = $derived(
		layout
			? []
			: STARTING_LAYOUTS.map((start) => {
					const types = bench.working.types.map((type) =>
						type.name === bench.working.page.type ? { ...type, layout: start.layout } : type
					);
					const resolver = new Resolver(
						{ site: bench.working.site, types, pictures: bench.working.pictures },
						new Date().toISOString()
					);
					return { start, share: resolver.evaluate(bench.working.page).sharePicture() };
				})
	);
</script>

<section class="px-3.5 py-0" aria-label={wording.theSharePictureOfThisPage}>
	{#if layout}
		<ShareStage
			{layout}
			src={bench.working.share?.recipe ? shares.at('bench', bench.working.share.recipe) : ''}
			{alt}
			bind:chosen
			{set}
		/>
		<p class="told mt-1.5 text-sm">
			<span class="text-ink-soft">{wording.itsWordsForThoseWhoCannotSee}</span>
			<span class="font-serif">{alt || wording.none}</span>
		</p>
		{#if weak.length > 0}
			<ul
				class="mt-2 border-l-4 border-l-flag bg-flag-wash px-2.5 py-1.5 text-sm"
				aria-label={wording.whatIsWeakInTheSharePicture}
			>
				{#each weak as one (one.code)}<li>{describeFinding(one)}. {describeMend(one)}</li>{/each}
			</ul>
		{/if}
		{#if drawn.length > 0}
			<h2 class="mt-3 text-sm font-semibold">{wording.theHardestOfItsKind}</h2>
			<ul class="hard mt-1.5 grid grid-cols-4 gap-3">
				{#each drawn as { found, share, weak } (found.path)}
					<li>
						<button class="block w-full text-left text-sm" onclick={() => go(found.path)} data-tip={found.path}>
							{#if share?.recipe}
								{@const src = shares.at(found.path, share.recipe)}
								{#if src}<img
										class="mb-0.75 block aspect-[1200/630] w-full bg-sunk outline-1 outline-rule in-[:hover]:outline-2 in-[:hover]:outline-sea"
										{src}
										alt={share.alt ?? ''}
									/>{:else}<span
										class="mb-0.75 block aspect-[1200/630] w-full bg-sunk p-2 text-ink-soft outline-1 outline-rule"
										>{wording.beingDrawn}</span
									>{/if}
							{/if}
							<span>{HARD_KINDS[found.kind]}</span>
							{#each weak as one (one.code)}<span
									class="weak mt-0.75 block border-l-4 border-l-flag bg-flag-wash px-1.5 py-0.5 text-sm"
									>{describeFinding(one)}</span
								>{/each}
						</button>
					</li>
				{/each}
			</ul>
		{/if}
	{:else}
		<h2 class="mt-3 text-sm font-semibold">{wording.noSharePicturesAreMadeOf(label)}</h2>
		<p class="start mb-2 text-ink-soft">
			{wording.beginWithOneOfTheseAsIt}
		</p>
		<ul class="layouts mt-1.5 grid grid-cols-2 gap-3">
			{#each tried as { start, share } (start.name)}
				<li>
					<button class="block w-full text-left text-sm" onclick={() => set(start.layout)}>
						{#if share?.recipe}
							{@const src = shares.at(`start ${start.name}`, share.recipe)}
							{#if src}<img
									class="mb-0.75 block aspect-[1200/630] w-full bg-sunk outline-1 outline-rule in-[:hover]:outline-2 in-[:hover]:outline-sea"
									{src}
									alt=""
								/>{:else}<span
									class="mb-0.75 block aspect-[1200/630] w-full bg-sunk p-2 text-ink-soft outline-1 outline-rule"
									>{wording.beingDrawn}</span
								>{/if}
						{/if}
						<span><strong>{start.name}</strong>, {labelled(start.says)}</span>
					</button>
				</li>
			{/each}
		</ul>
	{/if}
</section>
