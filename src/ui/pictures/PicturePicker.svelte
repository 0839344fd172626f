<script lang="ts">
	import { wording } from '$ui/words/en/pictures';
	import { onMount } from 'svelte';
	import { keptCopyOf, MEDIA_PATH, type Picture } from '$core';
	import { call, isRefused } from '$ui/client';
	import { findPictures, nameOfPicture } from '$ui/parts/words';

	/** The library in small, to choose one picture from. */
	let { site, pick }: { site: string; pick: (picture: Picture) => void } = $props();

	let all = $state.raw<readonly Picture[] | undefined>();
	let refused = $state('');
	let wanted = $state('');
	const found = $derived(findPictures((all ?? []).filter(keptCopyOf), wanted));

	onMount(async () => {
		const answer = await call('GET /sites/{site}/pictures', { site });
		if (isRefused(answer)) refused = answer.refused;
		else all = answer;
	});
	const MOST = 60;
</script>

<div class="mt-1 border border-rule bg-sheet p-1.5 text-sm">
	<input
		class="w-full"
		type="search"
		aria-label={wording.findAPicture}
		placeholder={wording.byNameOrWords}
		bind:value={wanted}
	/>
	{#if refused}<p role="alert">{refused}</p>{/if}
	<ul class="mt-1.5 grid max-h-52.5 grid-cols-4 gap-1.25 overflow-y-auto" aria-label={wording.picturesOfTheLibrary}>
		{#each found.slice(0, MOST) as picture (picture.src)}
			<li>
				<button
					class="block w-full"
					data-tip={nameOfPicture(picture)}
					aria-label={nameOfPicture(picture)}
					onclick={() => pick(picture)}
				>
					<img
						class="h-13 w-full object-cover in-[:hover]:outline-2 in-[:hover]:outline-sea"
						src={MEDIA_PATH + keptCopyOf(picture)?.file}
						alt=""
						loading="lazy"
					/>
				</button>
			</li>
		{:else}
			<li class="none col-span-full text-ink-soft">{all ? wording.noneFits : wording.looking}</li>
		{/each}
	</ul>
	{#if found.length > MOST}<p class="text-ink-soft">{wording.andMoreWriteAWordOfThe(found.length - MOST)}</p>{/if}
</div>
