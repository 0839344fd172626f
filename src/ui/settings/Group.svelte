<script lang="ts">
	import { wording } from '$ui/words/en/settings';
	import type { Snippet } from 'svelte';
	import Disclosure from '$ui/parts/shown/Disclosure.svelte';
	import { finderHere, orNone, provideGroup, SettingsGroup } from './finder.svelte';

	/** Settings that go together, open or closed as one left them; where nothing is looked for among settings, just they. */
	let {
		name,
		about = '',
		children
	}: {
		name: string;
		/** Words that what is in it can be found by, beside those of its settings. */
		about?: string;
		children: Snippet;
	} = $props();

	const finder = orNone(finderHere);
	// svelte-ignore state_referenced_locally
	const group = finder ? provideGroup(new SettingsGroup(name, about, finder)) : undefined;
	const isFound = $derived(group === undefined || group.hasFound || group.isMeant);
</script>

{#if finder && group}
	<div hidden={!isFound} data-group={name}>
		<Disclosure
			strong
			class="mt-3 border-t border-t-rule pt-1.5 text-sm"
			label={group.set > 0 ? wording.set(name, group.set) : name}
			bind:open={() => finder.isOpen(name), (open) => finder.turn(name, open)}>{@render children()}</Disclosure
		>
	</div>
{:else}{@render children()}{/if}
