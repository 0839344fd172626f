<script lang="ts">
	import { wording } from '$ui/words/en/people';
	import Select from '$ui/parts/select/Select.svelte';
	import Button from '$ui/parts/Button.svelte';
	import { call } from '$ui/client';
	import { Asking } from './asking.svelte';

	/** The editors whose pages may show the panel of a site, by their origins. */
	let { panels }: { panels: readonly { readonly site: string; readonly origins: readonly string[] }[] } = $props();

	const asking = new Asking();
	let [site, origin] = $state(['', '']);
	const at = $derived(site || (panels[0]?.site ?? ''));
	const set = (where: string, origins: readonly string[]) =>
		asking.done(call('PUT /sites/{site}/panel', { site: where, body: { origins } }));

	async function add(event: SubmitEvent) {
		event.preventDefault();
		const known = panels.find((one) => one.site === at)?.origins ?? [];
		if (await set(at, [...known, origin.trim()])) origin = '';
	}
</script>

<h2 class="mt-10 mb-1 font-semibold" id="panel">{wording.thePanelInEditors}</h2>
<p class="text-ink-soft">
	{wording.aPagesCardsAndItsOwnWords}
</p>
{#if asking.refused}<p class="fault mt-2 text-gone" role="alert">{asking.refused}</p>{/if}
<ul class="mt-2">
	{#each panels as { site: where, origins } (where)}
		{#each origins as one (one)}
			<li class="flex flex-wrap items-baseline gap-x-3 border-t border-t-rule py-1.5" data-origin={one}>
				<strong class="font-mono wrap-anywhere">{one}</strong>
				<span class="text-ink-soft">{where}</span>
				<span class="ml-auto text-sm">
					<Button
						look="link"
						onclick={() =>
							set(
								where,
								origins.filter((other) => other !== one)
							)}>{wording.takeAway}</Button
					>
				</span>
			</li>
		{/each}
	{/each}
</ul>
<form class="mt-3 flex flex-wrap items-end gap-3" onsubmit={add}>
	<label class="grid gap-1"
		>{wording.site} <Select value={at} choices={panels.map((one) => one.site)} set={(one) => (site = one)} /></label
	>
	<label class="grid flex-1 gap-1"
		>{wording.originOfTheEditor}
		<input class="font-mono" placeholder="https://editor.example" bind:value={origin} /></label
	>
	<Button look="main" disabled={origin.trim() === ''}>{wording.letItShowThePanel}</Button>
</form>
