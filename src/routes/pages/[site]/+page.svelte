<script lang="ts">
	import { wording } from '$ui/words/en/pagesAbout';
	import { untrack } from 'svelte';
	import PagesRoom from '$ui/pages/PagesRoom.svelte';

	let { data } = $props();
	const site = untrack(() => data.site.name);
</script>

<svelte:head><title>{wording.pagesKephalon(data.site.name)}</title></svelte:head>
{#key site}<PagesRoom {data} />{/key}
