<script lang="ts">
	import { wording } from '$ui/words/en/settings';
	import Group from '../Group.svelte';
	import Setting from '../Setting.svelte';
	import Button from '$ui/parts/Button.svelte';
	import Disclosure from '$ui/parts/shown/Disclosure.svelte';
	import Refused from '$ui/parts/Refused.svelte';
	import { PAGE_FIELDS, toText, whyNoSource } from '$core';
	import type { PartOf } from '$server/http/contract';
	import { call, isRefused } from '$ui/client';
	import { momentInWords } from '$ui/words/speaking';
	import { benchInView } from '$ui/workspace/context';
	import { linesIn, sourceOf, withMapped } from './liveData';

	/** Where records of pages are that stand nowhere, and where each field is in one; tried on a path before it is kept. */
	const bench = benchInView();
	const type = $derived(bench.working.type);
	const source = $derived(type?.source);
	const mapping = $derived(type?.mapping ?? {});

	/** What is typed and is no source yet; nothing of it is kept. */
	let typed = $state.raw<{ path: string; address: string } | undefined>();
	const path = $derived(typed?.path ?? source?.path ?? '');
	const address = $derived(typed?.address ?? source?.address ?? '');
	const why = $derived(path === '' && address === '' ? undefined : whyNoSource({ path, address }));
	function write(part: { path?: string; address?: string }) {
		typed = { path, address, ...part };
		const is = sourceOf(typed, source?.samples);
		if (is === undefined) return;
		typed = undefined;
		bench.change('type', { source: is });
	}
	const fields = $derived([...(type?.fields ?? []), ...PAGE_FIELDS].map(({ name }) => name));
	const rows = $derived([...new Set([...Object.keys(mapping), ...fields])]);
	const setMapped = (name: string, where: string) =>
		bench.change('type', { mapping: withMapped(mapping, name, where.trim()) });

	let tried = $state('');
	let isTrying = $state(false);
	let answer = $state.raw<PartOf<'POST /sites/{site}/records', 'answer'> | string | undefined>();
	async function tryIt(at: string) {
		if (!type || at.trim() === '') return;
		tried = at.trim();
		isTrying = true;
		const found = await call('POST /sites/{site}/records', {
			site: bench.siteName,
			body: { type: type.name, path: tried, ...(source && { source }), ...(type.mapping && { mapping: type.mapping }) }
		});
		isTrying = false;
		answer = isRefused(found) ? found.refused : found;
	}
	const read = $derived(typeof answer === 'object' ? answer : undefined);
	const valueOf = (name: string) => (read?.fields && Object.hasOwn(read.fields, name) ? toText(read.fields[name]) : '');
	let showsRecord = $state(false);

	let away = $state.raw<PartOf<'GET /sites/{site}/sources', 'answer'>>([]);
	const hasSource = $derived(source !== undefined);
	$effect(() => {
		if (!hasSource) return;
		void call('GET /sites/{site}/sources', { site: bench.siteName }).then((found) => {
			if (!isRefused(found)) away = found;
		});
	});
	const isAway = $derived(away.find((one) => one.type === type?.name));
</script>

<Group name={wording.liveData} about={wording.sourceRecordsMappingPointer}>
	<p class="text-sm text-ink-soft">
		{wording.pagesThatStandNowhereSuchAs}
	</p>
	{#if isAway && source}
		<p class="mt-2 border-l-4 border-l-flag bg-flag-wash px-2.5 py-1.5 text-sm" data-testid="source-away">
			{wording.theSourceIsAwaySinceWhatWas(momentInWords(isAway.since), isAway.why)}
		</p>
	{/if}
	<Setting name={wording.pathsOfItsPages} isSet={source !== undefined} hint={wording.eachNameStandsForSomething}>
		<input
			class="font-mono"
			value={path}
			placeholder={'/boats/{id}'}
			oninput={(event) => write({ path: event.currentTarget.value.trim() })}
		/>
	</Setting>
	<Setting name={wording.addressOfARecord} isSet={source !== undefined} hint={wording.withTheSameNamesOnlyThe}>
		<input
			class="font-mono"
			value={address}
			placeholder={'https://data.example/boats/{id}.json'}
			oninput={(event) => write({ address: event.currentTarget.value.trim() })}
		/>
	</Setting>
	{#if why && typed}<Refused>{wording.thisIsNoSourceYet(why)}</Refused>{/if}
	{#if source}
		<Setting name={wording.samples} isSet={(source.samples ?? []).length > 0} hint={wording.pathsOfSomePagesALineEach}>
			<textarea
				class="font-mono"
				rows="3"
				value={(source.samples ?? []).join('\n')}
				onchange={(event) => {
					const samples = linesIn(event.currentTarget.value);
					bench.change('type', { source: { ...source, ...(samples.length > 0 ? { samples } : { samples: [] }) } });
				}}></textarea>
		</Setting>
		<form
			class="mt-3 flex flex-wrap items-end gap-2 text-sm"
			onsubmit={(event) => {
				event.preventDefault();
				void tryIt(tried || (source.samples?.[0] ?? ''));
			}}
		>
			<label class="grid min-w-0 flex-1 gap-1"
				>{wording.tryAPath}
				<input class="font-mono" placeholder={source.samples?.[0] ?? '/boats/7'} bind:value={tried} /></label
			>
			<Button disabled={isTrying}>{isTrying ? wording.asking : wording.askForItsRecord}</Button>
		</form>
		{#each source.samples ?? [] as sample (sample)}
			<Button look="link" class="mr-3 font-mono text-sm" onclick={() => tryIt(sample)}>{sample}</Button>
		{/each}
	{/if}
	<div role="status" class="text-sm">
		{#if typeof answer === 'string'}<Refused>{answer}</Refused>
		{:else if read?.why}<Refused>{read.address}: {read.why}</Refused>
		{:else if read}
			<p class="mt-1 wrap-anywhere" data-testid="record-of">
				<span class="font-mono">{read.address}</span>
				{wording.hasOfItsFields(Object.keys(read.fields ?? {}).length)}
			</p>
			<Disclosure label={wording.theRecord} bind:open={showsRecord}>
				<!-- It scrolls, so it takes the focus itself. -->
				<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
				<pre
					class="max-h-60 overflow-auto bg-sunk p-2 font-mono text-xs"
					tabindex="0"
					aria-label={wording.theRecord}>{read.record}</pre>
			</Disclosure>
		{/if}
	</div>
	<h3 class="mt-3 text-sm font-semibold">{wording.whereEachFieldStandsInA}</h3>
	<p class="text-sm text-ink-soft">
		{wording.byAJsonPointerAboutHarbourOr}
	</p>
	<ul class="text-sm">
		{#each rows as name (name)}
			<li class="mt-1 grid grid-cols-[minmax(5rem,8rem)_minmax(0,1fr)] items-baseline gap-x-2">
				<label class="truncate font-mono" for="mapped-{name}" data-tip={name}>{name}</label>
				<input
					id="mapped-{name}"
					class="min-w-0 font-mono"
					value={mapping[name] ?? ''}
					onchange={(event) => setMapped(name, event.currentTarget.value)}
				/>
				{#if read?.problems && Object.hasOwn(read.problems, name)}
					<span class="col-start-2 text-flag">{read.problems[name]}</span>
				{:else if valueOf(name)}
					<span class="col-start-2 line-clamp-2 font-serif wrap-anywhere" data-mapped={name}>{valueOf(name)}</span>
				{:else if read?.fields && mapping[name]}<span class="col-start-2 text-gone italic">{wording.nothingThere}</span
					>{/if}
			</li>
		{/each}
	</ul>
</Group>
