<script lang="ts">
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
		{ id: 'content', name: 'Content', told: pagesInWords(bench.data.count.all), done: bench.data.count.all > 0 },
		{
			id: 'address',
			name: 'Name, address, languages',
			told: bench.working.site.base,
			done: bench.working.site.base.startsWith('https://')
		},
		{
			id: 'words',
			name: 'Words',
			told: field('description') ? 'described' : 'no description yet',
			done: field('description')
		},
		{
			id: 'pictures',
			name: 'Pictures',
			told: field('picture') ? 'a share picture' : 'no share picture yet',
			done: field('picture')
		},
		{
			id: 'people',
			name: 'People and cards',
			told: field('publisher') ? toText(bench.working.site.fields.publisher) : 'no publisher yet',
			done: field('publisher')
		},
		{
			id: 'worst',
			name: 'The worst ten',
			told: worst ? `${worst.faulty} of ${pagesInWords(worst.pages)} to mend` : 'not looked at yet',
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
			? (Object.values(bench.drafts.all).find((draft) => draft.refused)?.refused ?? 'Keeping …')
			: bench.drafts.savedAt
				? `All kept, last at ${bench.drafts.savedAt}`
				: 'Kept as you go'
	);
	// The worst ten as the site is when one comes.
	$effect(() => void untrack(look));
</script>

<div class="site">
	<nav aria-label="Steps">
		<ol>
			{#each steps as step (step.id)}
				<li>
					<a href="#{step.id}" class:done={step.done}>
						<span class="sign" aria-hidden="true">{step.done ? '✓' : ''}</span>
						<span>{step.name}<span class="quiet">{step.told}</span></span>
					</a>
				</li>
			{/each}
		</ol>
		<p class="quiet saved" role="status">{saved}</p>
		{#if bench.message}<p class="refused" role="alert">{bench.message}</p>{/if}
	</nav>
	<main>
		<section id="content">
			<h2>Content</h2>
			<p>
				{pagesInWords(bench.data.count.all)}, {bench.data.count.live.toLocaleString('en')} of them live.
			</p>
			<details bind:open={contentOpen}>
				<summary>Read it again, or more of it</summary>
				{#if contentOpen}<SetupContent name={bench.data.site.name} base={bench.data.site.base} {folders} {goOn} />{/if}
			</details>
		</section>
		<section id="address">
			<h2>Name, address, languages</h2>
			<SiteSettings only="address" />
		</section>
		<section id="words">
			<h2>Words</h2>
			<SiteSettings only="words" />
		</section>
		<section id="pictures">
			<h2>Pictures</h2>
			<SiteSettings only="pictures" />
		</section>
		<section id="people">
			<h2>People and cards</h2>
			<SiteSettings only="people" />
		</section>
		<section id="worst">
			<h2>The worst ten cards, as they would be shared now</h2>
			<p>
				<button class="plain-button" disabled={looking} onclick={look}
					>{looking ? 'Looking at every page …' : 'Look again'}</button
				>
			</p>
			{#if worst}
				{#if worst.faulty === 0}
					<p class="good">
						Nothing to mend on {pagesInWords(worst.pages)}.
						<a class="link" href="/bench/{encodeURIComponent(bench.data.site.name)}">To the bench, to release</a>
					</p>
				{:else}
					<h3>What would mend most</h3>
					<ol class="mends">
						{#each worst.mends.slice(0, 5) as mend (mend.code)}
							<li>
								<strong>{pagesInWords(mend.pages)}</strong>
								{mend.mend}
								<a class="link mono" href={benchAt(withFault(mend.code), mend.tag ?? 'title')}>{mend.tag}</a>
							</li>
						{/each}
					</ol>
					<ul class="cards" data-testid="worst">
						{#each worst.worst as page (page.path)}
							<li>
								<a class="mono link" href={benchAt(page.path, page.findings[0]?.tag ?? 'title')}>{page.path}</a>
								<p class="faults">{page.findings.map(describeFinding).join('. ')}.</p>
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
	<aside aria-label="The home page as it would be shared" tabindex="0">
		<p class="quiet">The page {bench.data.page.path} as it would be shared now</p>
		{#each bench.working.cards.filter( ({ reader }) => ['gangway', 'fathom', 'galley', 'porthole'].includes(reader.id) ) as card (card.reader.id)}<ReaderCard
				{card}
				{shown}
			/>{/each}
	</aside>
</div>

<style>
	.site {
		display: grid;
		grid-template-columns: 232px minmax(0, 1fr) minmax(280px, 360px);
	}
	nav,
	aside {
		position: sticky;
		top: 0;
		align-self: start;
		max-height: 100vh;
		overflow-y: auto;
		padding: 18px 14px;
	}
	nav a {
		display: flex;
		gap: 9px;
		border-left: 3px solid var(--rule);
		padding: 5px 9px;
		font-weight: 600;
	}
	nav a.done {
		border-left-color: var(--sea);
	}
	nav a:hover {
		background: var(--sheet-sunk);
	}
	nav .quiet {
		display: block;
		overflow: hidden;
		max-width: 160px;
		font-size: 12.5px;
		font-weight: 400;
		text-overflow: ellipsis;
	}
	.sign {
		width: 12px;
		color: var(--sea);
	}
	.saved {
		margin-top: 12px;
		padding-left: 12px;
	}
	main {
		border-inline: 1px solid var(--rule);
		background: var(--sheet);
		padding: 4px 26px 60px;
	}
	section {
		border-bottom: 1px solid var(--rule);
		padding: 16px 0 18px;
		scroll-margin-top: 8px;
	}
	section:last-child {
		border-bottom: 0;
	}
	h2 {
		font-family: var(--serif);
		font-size: 19px;
	}
	h3 {
		margin-top: 12px;
		font-weight: 600;
	}
	summary {
		cursor: pointer;
		font-weight: 600;
	}
	aside {
		display: flex;
		flex-direction: column;
		gap: 16px;
	}
	.mends {
		margin: 4px 0 14px;
		list-style: decimal inside;
	}
	.mends li {
		margin-top: 3px;
	}
	.cards {
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(260px, 1fr));
		gap: 20px;
	}
	.cards > li {
		min-width: 0;
		overflow-wrap: anywhere;
	}
	.cards :global(figcaption) {
		display: none;
	}
	.faults {
		margin-bottom: 5px;
		font-size: 13px;
		color: var(--gone);
	}
	.good {
		margin-top: 8px;
	}
	@media (max-width: 1080px) {
		.site {
			grid-template-columns: 190px minmax(0, 1fr);
		}
		aside {
			grid-column: 1 / -1;
			position: static;
			max-height: none;
		}
	}
	@media (max-width: 700px) {
		.site {
			grid-template-columns: minmax(0, 1fr);
		}
	}
</style>
