<script lang="ts">
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

<div class="picker">
	<input type="search" aria-label="Find a picture" placeholder="by name or words" bind:value={wanted} />
	{#if refused}<p role="alert">{refused}</p>{/if}
	<ul aria-label="Pictures of the library">
		{#each found.slice(0, MOST) as picture (picture.src)}
			<li>
				<button title={nameOfPicture(picture)} aria-label={nameOfPicture(picture)} onclick={() => pick(picture)}>
					<img src={MEDIA_PATH + keptCopyOf(picture)?.file} alt="" loading="lazy" />
				</button>
			</li>
		{:else}
			<li class="quiet none">{all ? 'None fits' : 'Looking …'}</li>
		{/each}
	</ul>
	{#if found.length > MOST}<p class="quiet">… and {found.length - MOST} more: write a word of the name.</p>{/if}
</div>

<style>
	.picker {
		margin-top: 4px;
		border: 1px solid var(--rule);
		background: var(--sheet);
		padding: 6px;
		font-size: 13px;
	}
	input {
		width: 100%;
	}
	ul {
		display: grid;
		grid-template-columns: repeat(4, 1fr);
		gap: 5px;
		max-height: 210px;
		margin-top: 6px;
		overflow-y: auto;
	}
	button {
		display: block;
		width: 100%;
	}
	img {
		width: 100%;
		height: 52px;
		object-fit: cover;
	}
	button:hover img {
		outline: 2px solid var(--sea);
	}
	.none {
		grid-column: 1 / -1;
	}
</style>
