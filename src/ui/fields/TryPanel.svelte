<script lang="ts">
	import { wording } from '$ui/words/en/fields';
	import { counted } from '$ui/words/speaking';
	import Button from '$ui/parts/Button.svelte';
	import { untrack } from 'svelte';
	import { describeFinding, formatIssue, HARD_KINDS, type TriedValue } from '$core';
	import Sheet from '$ui/parts/Sheet.svelte';
	import { pagesInWords, type EditableLayer } from '$ui/parts/words';
	import { benchInView } from '$ui/workspace/context';
	import TemplateField from './TemplateField.svelte';
	import { betterOf, Tries } from './tries.svelte';

	/** A template on the pages that are hard on it, and another held against it there; where its stretches give way. */
	let { open = $bindable(), layer, template }: { open: boolean; layer: EditableLayer; template: string } = $props();
	const bench = benchInView();

	/** Made once for a sheet that is opened: what is written in the bench meanwhile is another template. */
	const tries = untrack(
		() =>
			new Tries(bench.siteName, bench.data.page.type, template, (text) =>
				bench.editOf(layer, { kind: 'template', template: text })
			)
	);
	void tries.begin();
	$effect(() => () => tries.end());

	let livePath = $state('');
	const isLive = $derived(bench.data.types.find(({ name }) => name === bench.data.page.type)?.source !== undefined);
	const issues = $derived(tries.other === '' ? [] : bench.issuesOf(layer, { kind: 'template', template: tries.other }));
	const errors = $derived(issues.filter(({ severity }) => severity === 'error'));
	const pieces = $derived(tries.other === '' ? [] : bench.templateParts(tries.other));
	const has = $derived(tries.other !== '');
	const why = (value: TriedValue) => value.findings.map(describeFinding).join(' ');
	const told = $derived.by(() => {
		const { first, second, alike } = tries.score;
		if (!has || !tries.isCurrent || errors.length > 0) return '';
		if (first === 0 && second === 0) return wording.nothingTellsThemApartButThe;
		return wording.theFirstComesOutBetterOnThe(first, second, alike);
	});

	const around = {
		label: wording.anotherTemplate,
		describedBy: 'try-told',
		placeholder: wording.anotherOneToHoldAgainstIt,
		variables: () => bench.variablesFor(layer),
		show: bench.show,
		changed: (written: string) => tries.write(written),
		keep: () => take(),
		takeBack: () => {
			if (tries.other === '') return false;
			tries.write('');
			return true;
		}
	};
	function take() {
		if (!has || errors.length > 0) return;
		bench.write(layer, tries.other);
		open = false;
	}
</script>

<Sheet bind:open title={wording.onThePagesThatAreHardOn} size="wide">
	<p class="text-ink-soft">
		{wording.theOfPagesAsItWouldCome(bench.tag, bench.data.page.type)}
	</p>
	<div class="two mb-2 grid grid-cols-[repeat(auto-fit,minmax(300px,1fr))] gap-4">
		<div>
			<h3 class="mx-0 mt-2.5 mb-0.75 text-sm font-semibold">{wording.asItIsWritten}</h3>
			<p class="one px-0 py-1.25 font-mono text-sm wrap-anywhere">{template}</p>
		</div>
		<div>
			<h3 class="mx-0 mt-2.5 mb-0.75 text-sm font-semibold">{wording.against}</h3>
			<TemplateField text={tries.other} {pieces} {errors} {around} kept={0} />
			{#each issues as issue, at (at)}<p class="fault text-sm text-flag">
					{formatIssue(issue, tries.other)}
				</p>{/each}
		</div>
	</div>
	{#if isLive}
		<form
			class="mb-2 flex items-end gap-2 text-sm"
			onsubmit={(event) => {
				event.preventDefault();
				if (livePath.trim().startsWith('/')) tries.also(livePath.trim());
			}}
		>
			<label class="grid flex-1 gap-1"
				>{wording.aPathOfItsLiveData} <input class="font-mono" placeholder="/boats/7" bind:value={livePath} /></label
			>
			<Button>{wording.tryItThere}</Button>
		</form>
	{/if}
	<p id="try-told" role="status">
		{#if tries.refused}<span class="fault text-sm text-flag">{tries.refused}</span>
		{:else if !tries.pages}{wording.lookingAtTheHardPages}
		{:else if tries.pages.length === 0}{wording.noPageWasLookedAtThisType}
		{:else}{told}{/if}
	</p>
	{#if tries.pages && tries.pages.length > 0}
		<table class="mt-2 w-full table-fixed border-collapse text-sm">
			<thead>
				<tr
					><th
						class="border-t border-t-rule py-1.25 pr-2.5 pl-0 text-left align-top font-medium wrap-anywhere"
						scope="col">{wording.page}</th
					><th
						class="border-t border-t-rule py-1.25 pr-2.5 pl-0 text-left align-top font-medium wrap-anywhere"
						scope="col">{wording.asItIsWritten}</th
					>{#if has}<th
							class="border-t border-t-rule py-1.25 pr-2.5 pl-0 text-left align-top font-medium wrap-anywhere"
							scope="col">{wording.against}</th
						>{/if}</tr
				>
			</thead>
			<tbody>
				{#each tries.pages as page (page.path)}
					{@const better = betterOf(page)}
					<tr>
						<th
							class="border-t border-t-rule py-1.25 pr-2.5 pl-0 text-left align-top font-medium wrap-anywhere"
							scope="row"
							><span class="block font-mono">{page.path}</span>
							<span class="block font-normal text-ink-soft"
								>{page.kinds.map((kind) => HARD_KINDS[kind]).join(', ') || wording.liveData}</span
							></th
						>
						{#if page.away !== undefined}
							<td class="border-t border-t-rule py-1.25 pr-2.5 pl-0 align-top text-flag" colspan={has ? 2 : 1}
								>{wording.itsRecordCouldNotBeHad(page.away)}</td
							>
						{/if}
						{#each page.values as value, at (at)}
							<td
								class="border-t border-t-rule py-1.25 pr-2.5 pl-0 align-top [&.better]:pl-2 [&.better]:shadow-chosen"
								class:better={better === (at === 0 ? 'first' : 'second')}
							>
								<span class="block font-serif">{value.value || wording.nothing}</span>
								<span class="block text-ink-soft"
									>{wording.characters(
										[...value.value].length,
										better === (at === 0 ? 'first' : 'second') ? wording.better : ''
									)}</span
								>
								{#if value.findings.length > 0}<span class="why block text-sm text-flag">{why(value)}</span>{/if}
							</td>
						{/each}
					</tr>
				{/each}
			</tbody>
		</table>
	{/if}
	{#if tries.counting}
		<p role="status">
			{wording.countingWhereItGivesWayOf(counted(tries.counting.done), pagesInWords(tries.counting.all))}
		</p>
	{:else if tries.given}
		<h3 class="mx-0 mt-2.5 mb-0.75 text-sm font-semibold">{wording.whereItGivesWay}</h3>
		{#if tries.given.pages === 0}
			<p class="text-ink-soft">{wording.onNoPageNoneTakesItsFrom(bench.tag)}</p>
		{:else if tries.given.stretches.length === 0}
			<p class="text-ink-soft">
				{wording.nowhereOnAllOfTheThatTake(pagesInWords(tries.given.pages), bench.tag)}
			</p>
		{:else}
			<ul>
				{#each tries.given.stretches as { start, end, pages } (start)}
					<li class="mb-0.75 text-sm">
						<span class="font-mono">{template.slice(start, end)}</span>
						{wording.givesWayOnOf(pagesInWords(pages), counted(tries.given.pages))}
					</li>
				{/each}
			</ul>
		{/if}
	{/if}
	<p class="actions mt-3 flex gap-2">
		{#if has}<Button look="main" disabled={errors.length > 0} onclick={take}>{wording.takeTheSecond}</Button>{/if}
		<Button onclick={() => (open = false)}>{wording.close}</Button>
	</p>
</Sheet>
