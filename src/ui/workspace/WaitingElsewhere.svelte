<script lang="ts">
	import { onMount, untrack } from 'svelte';
	import { refresh } from '$ui/parts/refresh';
	import { Drafts } from './drafts.svelte';
	import { keepDrafts, Neighbours, restoreDrafts } from './sharing';
	import WaitingSheet from './WaitingSheet.svelte';

	/** What waits on the bench of a site, seen from another room. */
	let {
		open = $bindable(),
		site,
		left
	}: { open: boolean; site: string; /** Told how many are left. */ left: (waiting: number) => void } = $props();

	const neighbours = untrack(() => new Neighbours(site));
	const drafts = new Drafts({
		siteName: untrack(() => site),
		// What is wrong with one, the server says.
		isBroken: () => false,
		took() {
			neighbours.tell();
			// What the room shows may be another now.
			void refresh();
		}
	});
	let isTaken = $state(false);
	onMount(() => {
		restoreDrafts(site, drafts);
		isTaken = true;
		return () => keepDrafts(site, drafts.all);
	});
	$effect(() => {
		if (!isTaken) return;
		keepDrafts(site, drafts.all);
		left(drafts.waiting);
	});
</script>

<svelte:window onpagehide={() => keepDrafts(site, drafts.all, 'browser')} />
<WaitingSheet bind:open {site} {drafts} />
