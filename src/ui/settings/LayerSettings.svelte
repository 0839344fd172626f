<script lang="ts">
	import { describeBase, type Families } from '$ui/parts/words';
	import type { Bench, EditableLayer } from '$ui/bench/bench.svelte';
	import LayerMark from '$ui/parts/LayerMark.svelte';
	import PageSettings from './PageSettings.svelte';
	import DraftNote from '$ui/bench/DraftNote.svelte';
	import Setting from './Setting.svelte';
	import SiteSettings from './SiteSettings.svelte';
	import TypeSettings from './TypeSettings.svelte';

	/** What a layer is, beside its rules: in the place of the layers of a tag, with a way back to them. */
	let {
		bench,
		layer,
		back,
		act
	}: {
		bench: Bench;
		layer: EditableLayer;
		back: () => void;
		act: (action: Readonly<Record<string, string>>) => void;
	} = $props();

	const key = $derived(JSON.stringify([bench.placeOf(layer)]));
	const owner = $derived(layer === 'site' ? bench.site : layer === 'type' ? bench.type : bench.page);
	const title = $derived(
		layer === 'page'
			? 'This page'
			: layer === 'type'
				? `Every ${(bench.type?.label ?? bench.page.type).toLowerCase()}`
				: 'The whole site'
	);
	const families: Families = $derived(owner?.families ?? {});
	const setFamily = (family: 'og' | 'twitter') => (event: Event & { currentTarget: HTMLSelectElement }) => {
		const { [family]: _old, ...rest } = families;
		const { value } = event.currentTarget;
		const all = value === '' ? rest : { ...rest, [family]: value === 'on' };
		bench.change(layer, { families: Object.keys(all).length > 0 ? all : null });
	};
	const setExtra = (where: 'before' | 'after') => (event: Event & { currentTarget: HTMLTextAreaElement }) => {
		const { [where]: _old, ...rest } = owner?.extra ?? {};
		const text = event.currentTarget.value.trim();
		const all = text === '' ? rest : { ...rest, [where]: text };
		bench.change(layer, { extra: Object.keys(all).length > 0 ? all : null });
	};
	const sayOf = (value: boolean | undefined) => (value === undefined ? '' : value ? 'on' : 'off');
</script>

<section class="settings" aria-label="Settings of {title.toLowerCase()}" data-settings={layer}>
	<button class="back" onclick={back}>← The layers of <span class="mono">{bench.tag}</span></button>
	<h2><LayerMark {layer} size={15} /> {title}</h2>
	{#if layer === 'site'}<SiteSettings {bench} />
	{:else if layer === 'type'}<TypeSettings {bench} {act} />
	{:else}<PageSettings {bench} {act} />{/if}

	<details>
		<summary>Families of tags and extra markup</summary>
		{#each ['og', 'twitter'] as const as family (family)}
			<Setting name={family === 'og' ? 'Open Graph' : 'Twitter card'} hint={describeBase(layer)}>
				<select value={sayOf(families[family])} onchange={setFamily(family)}>
					<option value="">{layer === 'site' ? 'On, as built in' : 'As the layer below says'}</option>
					<option value="on">On</option>
					<option value="off">Off: none of these tags</option>
				</select>
			</Setting>
		{/each}
		{#each ['before', 'after'] as const as where (where)}
			<Setting
				name="Extra head markup, {where} ours"
				hint="meta, link, script, style and the like; what a head may not hold is left out"
			>
				<textarea class="mono" rows="2" value={owner?.extra?.[where] ?? ''} onchange={setExtra(where)}></textarea>
			</Setting>
		{/each}
	</details>

	<DraftNote {bench} draftKey={key} />
</section>

<style>
	h2 {
		display: flex;
		gap: 8px;
		align-items: center;
		margin-top: 6px;
		font-size: 17px;
		font-weight: 600;
	}
	details {
		margin-top: 12px;
		border-top: 1px solid var(--rule);
		padding-top: 6px;
	}
	summary {
		cursor: pointer;
		font-size: 13px;
		font-weight: 600;
	}
</style>
