<script lang="ts">
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

<Sheet bind:open title="On the pages that are hard on it" wide>
	<p class="quiet">
		The {bench.tag} of {bench.data.page.type} pages, as it would come out; nothing is kept here.
	</p>
	<div class="two">
		<div>
			<h3>As it is written</h3>
			<p class="mono one">{template}</p>
		</div>
		<div>
			<h3>Against</h3>
			<TemplateField text={tries.other} {pieces} {errors} {around} kept={0} />
			{#each issues as issue, at (at)}<p class="fault">{formatIssue(issue, tries.other)}</p>{/each}
		</div>
	</div>
	<p id="try-told" role="status">
		{#if tries.refused}<span class="fault">{tries.refused}</span>
		{:else if !tries.pages}Looking at the hard pages …
		{:else if tries.pages.length === 0}No page was looked at: this type has none.
		{:else}{told}{/if}
	</p>
	{#if tries.pages && tries.pages.length > 0}
		<table>
			<thead>
				<tr
					><th scope="col">Page</th><th scope="col">As it is written</th>{#if has}<th scope="col">Against</th>{/if}</tr
				>
			</thead>
			<tbody>
				{#each tries.pages as page (page.path)}
					{@const better = betterOf(page)}
					<tr>
						<th scope="row"
							><span class="mono">{page.path}</span>
							<span class="quiet">{page.kinds.map((kind) => HARD_KINDS[kind]).join(', ')}</span></th
						>
						{#each page.values as value, at (at)}
							<td class:better={better === (at === 0 ? 'first' : 'second')}>
								<span class="serif">{value.value || 'nothing'}</span>
								<span class="quiet"
									>{[...value.value].length} characters{better === (at === 0 ? 'first' : 'second')
										? ', better'
										: ''}</span
								>
								{#if value.findings.length > 0}<span class="why">{why(value)}</span>{/if}
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
		<h3>Where it gives way</h3>
		{#if tries.given.pages === 0}
			<p class="quiet">On no page: none takes its {bench.tag} from here.</p>
		{:else if tries.given.stretches.length === 0}
			<p class="quiet">
				Nowhere: on all of the {count(tries.given.pages)} that take their {bench.tag} from here it fits whole.
			</p>
		{:else}
			<ul>
				{#each tries.given.stretches as { start, end, pages } (start)}
					<li>
						<span class="mono">{template.slice(start, end)}</span> gives way on {count(pages)} of {tries.given.pages.toLocaleString(
							'en'
						)}
					</li>
				{/each}
			</ul>
		{/if}
	{/if}
	<p class="actions">
		{#if has}<button class="main-button" disabled={errors.length > 0} onclick={take}>Take the second</button>{/if}
		<button class="plain-button" onclick={() => (open = false)}>Close</button>
	</p>
</Sheet>

<style>
	h3 {
		margin: 10px 0 3px;
		font-size: 13px;
		font-weight: 600;
	}
	.two {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(300px, 1fr));
		gap: 16px;
		margin-bottom: 8px;
	}
	.one {
		padding: 5px 0;
		font-size: 13px;
		overflow-wrap: anywhere;
	}
	table {
		width: 100%;
		margin-top: 8px;
		border-collapse: collapse;
		font-size: 13px;
		table-layout: fixed;
	}
	th {
		font-weight: 500;
		text-align: left;
		overflow-wrap: anywhere;
	}
	th,
	td {
		border-top: 1px solid var(--rule);
		padding: 5px 10px 5px 0;
		vertical-align: top;
	}
	td > span,
	th > span {
		display: block;
	}
	th .quiet {
		font-weight: 400;
	}
	.better {
		box-shadow: inset 3px 0 0 var(--sea);
		padding-left: 8px;
	}
	.why,
	.fault {
		font-size: 12.5px;
		color: var(--flag);
	}
	li {
		margin-bottom: 3px;
		font-size: 13px;
	}
	.actions {
		display: flex;
		gap: 8px;
		margin-top: 12px;
	}
</style>
