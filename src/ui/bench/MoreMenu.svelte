<script lang="ts">
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
		{ name: 'This page', items: of('fields', 'own', 'versions', 'settings') },
		{
			name: 'Its layers',
			items: [
				{ says: 'Settings of its type', run: () => open('type') },
				{ says: 'Settings of the site', run: () => open('site') }
			]
		},
		{ name: 'Pages', items: of('newPage', 'hard', 'palette') },
		{ name: 'Edits', items: of('undo', 'redo', 'record') },
		{ name: 'Help', items: act.keys ? [{ says: 'All keys', keys: '?', run: act.keys }] : [] }
	]);
</script>

{#if Came}
	<Came opens label="More ▾" {groups} />
{:else}
	<button
		class={button({ look: 'plain' })}
		data-button="more"
		aria-haspopup="menu"
		aria-expanded="false"
		onclick={bring}>More ▾</button
	>
{/if}
