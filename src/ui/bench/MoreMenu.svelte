<script lang="ts">
	import { wording } from '$ui/words/en/bench';
	import type { Component, ComponentProps } from 'svelte';
	import type ActionMenu from '$ui/parts/ActionMenu.svelte';
	import { KEYS, type KeyId } from '$ui/parts/keys';
	import { button } from '$ui/parts/looks';

	/** What is done on the bench, but not often enough to stand in its bar. The menu comes when it is asked for. */
	let { act, open }: { act: Partial<Record<KeyId, () => void>>; open: (panel: 'type' | 'site') => void } = $props();
	let Came = $state.raw<Component<ComponentProps<typeof ActionMenu>>>();
	const bring = async () => (Came = (await import('$ui/parts/ActionMenu.svelte')).default);
	const of = (...ids: KeyId[]) =>
		ids.flatMap((id) => {
			const key = KEYS.find((one) => one.id === id);
			const run = act[id];
			return key && run ? [{ says: key.does, keys: key.keys, run }] : [];
		});
	const groups = $derived([
		{ name: wording.thisPage, items: of('fields', 'own', 'versions', 'settings') },
		{
			name: wording.itsLayers,
			items: [
				{ says: wording.settingsOfItsType, run: () => open('type') },
				{ says: wording.settingsOfTheSite, run: () => open('site') }
			]
		},
		{ name: wording.pages, items: of('newPage', 'hard', 'palette') },
		{ name: wording.edits, items: of('undo', 'redo', 'record') },
		{ name: wording.help, items: act.keys ? [{ says: wording.allKeys, keys: '?', run: act.keys }] : [] }
	]);
</script>

{#if Came}
	<Came opens label={wording.more} {groups} />
{:else}
	<button
		class={button({ look: 'plain' })}
		data-button="more"
		aria-haspopup="menu"
		aria-expanded="false"
		onclick={bring}>{wording.more}</button
	>
{/if}
