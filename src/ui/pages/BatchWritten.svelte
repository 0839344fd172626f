<script lang="ts">
	import { wording } from '$ui/words/en/pages';
	import { call, isRefused } from '$ui/client';
	import Refused from '$ui/parts/Refused.svelte';
	import type { WrittenField } from './words';
	import BatchOnPage from './BatchOnPage.svelte';

	/** A template or a field for many pages, written as on the bench of the first of them: with what it comes to there. */
	let {
		site,
		path,
		what,
		tag,
		template,
		setTemplate,
		field,
		setField
	}: {
		site: string;
		path: string;
		what: 'template' | 'field';
		tag: string;
		template: string;
		setTemplate: (template: string) => void;
		field: WrittenField;
		setField: (field: WrittenField) => void;
	} = $props();
	const asked = $derived(call('GET /sites/{site}/bench', { site, query: { path } }));
</script>

{#await asked}
	<p class="text-ink-soft">{wording.lookingAt(path)}</p>
{:then data}
	{#if isRefused(data)}<Refused>{data.refused}</Refused>
	{:else}<BatchOnPage {site} {data} {what} {tag} {template} {setTemplate} {field} {setField} />{/if}
{/await}
