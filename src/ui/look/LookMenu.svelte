<script lang="ts">
	import { wording } from '$ui/words/en/rooms';
	import { LANGUAGES, type Spoken } from '$core';
	import { takeLanguage } from './language';
	import { spoken } from '$ui/words/speaking';
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
		label={wording.look}
		groups={[
			{
				name: wording.colours,
				value: look.colours,
				choices: { system: wording.asTheSystemHasThem, light: wording.light, dark: wording.dark },
				set: (colours) => take({ colours: colours as Look['colours'] })
			},
			{
				name: wording.space,
				value: look.space,
				choices: { usual: wording.asUsual, dense: wording.denser, roomy: wording.roomier },
				set: (space) => take({ space: space as Look['space'] })
			},
			{
				name: wording.language,
				value: spoken(),
				choices: LANGUAGES,
				set: (language) => takeLanguage(language as Spoken)
			}
		]}
	/>
{:else}
	<button class={button({ look: 'link' })} aria-haspopup="menu" aria-expanded="false" onclick={bring}
		>{wording.look}</button
	>
{/if}
