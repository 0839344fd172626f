<script lang="ts">
	import { works, type Work } from '$ui/works/works.svelte';
	import WorkLine from '$ui/works/WorkLine.svelte';
	import Select from '$ui/parts/select/Select.svelte';
	import Button from '$ui/parts/Button.svelte';
	import Refused from '$ui/parts/Refused.svelte';
	import { byWhom } from '$ui/people/byWhom';
	import { onMount } from 'svelte';
	import type { DriftOfSite, Schedule } from '$server/probes/drift';
	import type { Drift } from '$server/probes/drifts';
	import { call, follow, isRefused } from '$ui/client';
	import { pagesInWords } from '$ui/parts/words';
	import { roomAt } from '$ui/places/rooms';

	/** What is served against what was released, over the whole site: looked at now, every hour or every night. */
	let { site }: { site: string } = $props();

	let drift = $state.raw<DriftOfSite | undefined>();
	let refused = $state('');
	let doing = $state.raw<Work | undefined>();
	const IS: Readonly<Record<Drift, string>> = {
		same: 'as released',
		missing: 'without what was released',
		picture: 'without a picture of its card',
		old: 'as an earlier release',
		other: 'otherwise',
		doubled: 'with tags twice',
		noindex: 'kept out of search',
		'no-page': 'as no page',
		error: 'with an error',
		unreachable: 'not to be fetched',
		'shut-out': 'shut out by robots.txt'
	};
	const SCHEDULE: Readonly<Record<Schedule, string>> = {
		off: 'only when asked',
		hour: 'every hour',
		night: 'every night'
	};

	async function read() {
		const answer = await call('GET /sites/{site}/drift', { site });
		if (isRefused(answer)) refused = answer.refused;
		else drift = answer;
	}
	onMount(() => void read());
	async function look() {
		const work = (doing = works.begin(site, 'Looking at what is served'));
		refused = '';
		const looked = await follow('POST /sites/{site}/drift', { site, body: {} }, work, {
			stopped: '',
			broken: 'The answer broke off. Look again: it goes on from where it was.'
		});
		if (isRefused(looked)) refused = looked.refused;
		else drift = looked.drift;
		doing = undefined;
		works.end(work, isRefused(looked) ? looked.refused : 'What is served was looked at.', isRefused(looked));
		if (work.signal.aborted) await read();
	}
	async function schedule(every: Schedule) {
		const answer = await call('PUT /sites/{site}/drift', { site, body: { every } });
		if (isRefused(answer)) refused = answer.refused;
		else drift = answer;
	}
	const counts = $derived(Object.entries(drift?.counts ?? {}).filter(([, count]) => count > 0) as [Drift, number][]);
	const when = (iso: string) => new Date(iso).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' });
</script>

<section aria-labelledby="served" data-testid="served">
	<h2 class="text-md font-semibold" id="served">What is served</h2>
	{#if drift}
		<p role="status">
			{#if doing}<WorkLine work={doing} />
			{:else if drift.made === null}Nobody has compared it with what was released yet.
			{:else}
				{#each counts as [is, count], index (is)}{index > 0 ? '; ' : ''}<strong
						class="[&.odd]:text-flag"
						class:odd={is !== 'same'}>{pagesInWords(count)}</strong
					>
					{IS[is]}{/each}.
				<span class="text-ink-soft">
					{when(drift.made)}{#if drift.by}, {byWhom(drift.by)}{/if}{#if drift.waiting > 0}; {pagesInWords(
							drift.waiting
						)} still to be looked at{/if}{#if drift.came.length > 0};
						{drift.came.length} more than before{/if}{#if drift.went.length > 0}; {drift.went.length} mended since{/if}.
				</span>
			{/if}
		</p>
		{#if drift.drifted.length > 0}
			<ul>
				{#each drift.drifted.slice(0, 6) as one (one.path)}
					<li class="border-t border-t-rule px-0 py-0.75 text-sm wrap-anywhere">
						<a class="font-mono" href="{roomAt('readers', site)}?page={encodeURIComponent(one.path)}">{one.path}</a>
						is served {IS[one.is]}{#if one.more}: <span class="text-ink-soft">{one.more}</span>{/if}
					</li>
				{/each}
				{#if drift.drifted.length > 6}<li
						class="border-t border-t-rule px-0 py-0.75 text-sm wrap-anywhere text-ink-soft"
					>
						… and {drift.drifted.length - 6} more
					</li>{/if}
			</ul>
		{/if}
		<p class="do mt-1.5 flex flex-wrap items-center gap-x-4 gap-y-1.5 text-sm">
			<Button disabled={doing !== undefined} onclick={look}
				>{drift.waiting > 0 ? 'Go on' : 'Compare all pages now'}</Button
			>
			<label
				>By itself
				<Select
					value={drift.every}
					choices={Object.entries(SCHEDULE)}
					set={(every) => void schedule(every as Schedule)}
				/></label
			>
		</p>
	{/if}
	{#if refused}<Refused>{refused}</Refused>{/if}
</section>
