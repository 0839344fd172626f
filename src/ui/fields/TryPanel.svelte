<script lang="ts">
	import Button from '$ui/parts/Button.svelte';
	import { untrack } from 'svelte';
	import { describeFinding, formatIssue, HARD_KINDS, type TriedValue } from '$core';
	import Sheet from '$ui/parts/Sheet.svelte';
	import type { EditableLayer } from '$ui/parts/words';
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
	const count = (pages: number) => `${pages.toLocaleString('en')} ${pages === 1 ? 'page' : 'pages'}`;
	const issues = $derived(tries.other === '' ? [] : bench.issuesOf(layer, { kind: 'template', template: tries.other }));
	const errors = $derived(issues.filter(({ severity }) => severity === 'error'));
	const pieces = $derived(tries.other === '' ? [] : bench.templateParts(tries.other));
	const has = $derived(tries.other !== '');
	const why = (value: TriedValue) => value.findings.map(describeFinding).join(' ');
	const told = $derived.by(() => {
		const { first, second, alike } = tries.score;
		if (!has || !tries.isCurrent || errors.length > 0) return '';
		if (first === 0 && second === 0)
			return 'Nothing tells them apart but the words: as much is wrong with one as with the other.';
		return `The first comes out better on ${first}, the second on ${second}, alike on ${alike}, by what is wrong with them there.`;
	});

	const around = {
		label: 'Another template',
		describedBy: 'try-told',
		placeholder: 'Another one to hold against it. { offers what fits',
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

<Sheet bind:open title="On the pages that are hard on it" size="wide">
	<p class="text-ink-soft">
		The {bench.tag} of {bench.data.page.type} pages, as it would come out; nothing is kept here.
	</p>
	<div class="two mb-2 grid grid-cols-[repeat(auto-fit,minmax(300px,1fr))] gap-4">
		<div>
			<h3 class="mx-0 mt-2.5 mb-0.75 text-sm font-semibold">As it is written</h3>
			<p class="one px-0 py-1.25 font-mono text-sm wrap-anywhere">{template}</p>
		</div>
		<div>
			<h3 class="mx-0 mt-2.5 mb-0.75 text-sm font-semibold">Against</h3>
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
				>A path of its live data <input class="font-mono" placeholder="/boats/7" bind:value={livePath} /></label
			>
			<Button>Try it there</Button>
		</form>
	{/if}
	<p id="try-told" role="status">
		{#if tries.refused}<span class="fault text-sm text-flag">{tries.refused}</span>
		{:else if !tries.pages}Looking at the hard pages …
		{:else if tries.pages.length === 0}No page was looked at: this type has none.
		{:else}{told}{/if}
	</p>
	{#if tries.pages && tries.pages.length > 0}
		<table class="mt-2 w-full table-fixed border-collapse text-sm">
			<thead>
				<tr
					><th
						class="border-t border-t-rule py-1.25 pr-2.5 pl-0 text-left align-top font-medium wrap-anywhere"
						scope="col">Page</th
					><th
						class="border-t border-t-rule py-1.25 pr-2.5 pl-0 text-left align-top font-medium wrap-anywhere"
						scope="col">As it is written</th
					>{#if has}<th
							class="border-t border-t-rule py-1.25 pr-2.5 pl-0 text-left align-top font-medium wrap-anywhere"
							scope="col">Against</th
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
								>{page.kinds.map((kind) => HARD_KINDS[kind]).join(', ') || 'live data'}</span
							></th
						>
						{#if page.away !== undefined}
							<td class="border-t border-t-rule py-1.25 pr-2.5 pl-0 align-top text-flag" colspan={has ? 2 : 1}
								>Its record could not be had. {page.away}</td
							>
						{/if}
						{#each page.values as value, at (at)}
							<td
								class="border-t border-t-rule py-1.25 pr-2.5 pl-0 align-top [&.better]:pl-2 [&.better]:shadow-chosen"
								class:better={better === (at === 0 ? 'first' : 'second')}
							>
								<span class="block font-serif">{value.value || 'nothing'}</span>
								<span class="block text-ink-soft"
									>{[...value.value].length} characters{better === (at === 0 ? 'first' : 'second')
										? ', better'
										: ''}</span
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
			Counting where it gives way: {tries.counting.done.toLocaleString('en')} of {count(tries.counting.all)} …
		</p>
	{:else if tries.given}
		<h3 class="mx-0 mt-2.5 mb-0.75 text-sm font-semibold">Where it gives way</h3>
		{#if tries.given.pages === 0}
			<p class="text-ink-soft">On no page: none takes its {bench.tag} from here.</p>
		{:else if tries.given.stretches.length === 0}
			<p class="text-ink-soft">
				Nowhere: on all of the {count(tries.given.pages)} that take their {bench.tag} from here it fits whole.
			</p>
		{:else}
			<ul>
				{#each tries.given.stretches as { start, end, pages } (start)}
					<li class="mb-0.75 text-sm">
						<span class="font-mono">{template.slice(start, end)}</span> gives way on {count(pages)} of {tries.given.pages.toLocaleString(
							'en'
						)}
					</li>
				{/each}
			</ul>
		{/if}
	{/if}
	<p class="actions mt-3 flex gap-2">
		{#if has}<Button look="main" disabled={errors.length > 0} onclick={take}>Take the second</Button>{/if}
		<Button onclick={() => (open = false)}>Close</Button>
	</p>
</Sheet>
