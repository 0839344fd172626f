<script lang="ts">
	import { wording } from '$ui/words/en/overview';
	import { momentInWords } from '$ui/words/speaking';
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
		same: wording.asReleased,
		missing: wording.withoutWhatWasReleased,
		picture: wording.withoutAPictureOfItsCard,
		old: wording.asAnEarlierRelease,
		other: 'otherwise',
		doubled: wording.withTagsTwice,
		noindex: wording.keptOutOfSearch,
		'no-page': wording.asNoPage,
		error: wording.withAnError,
		unreachable: wording.notToBeFetched,
		'shut-out': wording.shutOutByRobotsTxt
	};
	const SCHEDULE: Readonly<Record<Schedule, string>> = {
		off: wording.onlyWhenAsked,
		hour: wording.everyHour,
		night: wording.everyNight
	};

	async function read() {
		const answer = await call('GET /sites/{site}/drift', { site });
		if (isRefused(answer)) refused = answer.refused;
		else drift = answer;
	}
	onMount(() => void read());
	async function look() {
		const work = (doing = works.begin(site, wording.lookingAtWhatIsServed));
		refused = '';
		const looked = await follow('POST /sites/{site}/drift', { site, body: {} }, work, {
			stopped: '',
			broken: wording.theAnswerBrokeOffLookAgainIt
		});
		if (isRefused(looked)) refused = looked.refused;
		else drift = looked.drift;
		doing = undefined;
		works.end(work, isRefused(looked) ? looked.refused : wording.whatIsServedWasLookedAt, isRefused(looked));
		if (work.signal.aborted) await read();
	}
	async function schedule(every: Schedule) {
		const answer = await call('PUT /sites/{site}/drift', { site, body: { every } });
		if (isRefused(answer)) refused = answer.refused;
		else drift = answer;
	}
	const counts = $derived(Object.entries(drift?.counts ?? {}).filter(([, count]) => count > 0) as [Drift, number][]);
</script>

<section aria-labelledby="served" data-testid="served">
	<h2 class="text-md font-semibold" id="served">{wording.whatIsServed}</h2>
	{#if drift}
		<p role="status">
			{#if doing}<WorkLine work={doing} />
			{:else if drift.made === null}{wording.nobodyHasComparedItWithWhat}
			{:else}
				{#each counts as [is, count], index (is)}{index > 0 ? '; ' : ''}<strong
						class="[&.odd]:text-flag"
						class:odd={is !== 'same'}>{pagesInWords(count)}</strong
					>
					{IS[is]}{/each}.
				<span class="text-ink-soft">
					{momentInWords(drift.made)}{#if drift.by}, {byWhom(
							drift.by
						)}{/if}{#if drift.waiting > 0}{wording.stillToBeLookedAt(
							pagesInWords(drift.waiting)
						)}{/if}{#if drift.came.length > 0}{wording.moreThanBefore(
							drift.came.length
						)}{/if}{#if drift.went.length > 0}{wording.mendedSince(drift.went.length)}{/if}.
				</span>
			{/if}
		</p>
		{#if drift.drifted.length > 0}
			<ul>
				{#each drift.drifted.slice(0, 6) as one (one.path)}
					<li class="border-t border-t-rule px-0 py-0.75 text-sm wrap-anywhere">
						<a class="font-mono" href="{roomAt('readers', site)}?page={encodeURIComponent(one.path)}">{one.path}</a>
						{wording.isServed(IS[one.is])}{#if one.more}: <span class="text-ink-soft">{one.more}</span>{/if}
					</li>
				{/each}
				{#if drift.drifted.length > 6}<li
						class="border-t border-t-rule px-0 py-0.75 text-sm wrap-anywhere text-ink-soft"
					>
						{wording.andMore(drift.drifted.length - 6)}
					</li>{/if}
			</ul>
		{/if}
		<p class="do mt-1.5 flex flex-wrap items-center gap-x-4 gap-y-1.5 text-sm">
			<Button disabled={doing !== undefined} onclick={look}
				>{drift.waiting > 0 ? wording.goOn : wording.compareAllPagesNow}</Button
			>
			<label
				>{wording.byItself}
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
