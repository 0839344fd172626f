<script lang="ts">
	import { onMount, type Component, type ComponentProps } from 'svelte';
	import type Menu from '$ui/parts/Menu.svelte';
	import { button } from '$ui/parts/looks';
	import { lookNow, readLook, takeLook, type Look } from './look';

	/** How everything looks to whoever looks. The menu comes when it is asked for. */
	let look = $state.raw(readLook());
	onMount(() => (look = lookNow()));
	function take(change: Partial<Look>) {
		look = { ...look, ...change };
		takeLook(look);
	}
	let Came = $state.raw<Component<ComponentProps<typeof Menu>>>();
	const bring = async () => (Came = (await import('$ui/parts/Menu.svelte')).default);
</script>

{#if Came}
	<Came
		opens
		label="Look"
		groups={[
			{
				name: 'Colours',
				value: look.colours,
				choices: { system: 'as the system has them', light: 'light', dark: 'dark' },
				set: (colours) => take({ colours: colours as Look['colours'] })
			},
			{
				name: 'Space',
				value: look.space,
				choices: { usual: 'as usual', dense: 'denser', roomy: 'roomier' },
				set: (space) => take({ space: space as Look['space'] })
			}
		]}
	/>
{:else}
	<button class={button({ look: 'link' })} aria-haspopup="menu" aria-expanded="false" onclick={bring}>Look</button>
{/if}
