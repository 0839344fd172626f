<script lang="ts">
	import { untrack } from 'svelte';
	import PagesRoom from '$ui/pages/PagesRoom.svelte';

	let { data } = $props();
	const site = untrack(() => data.site.name);
</script>

<svelte:head><title>Pages · {data.site.name} · Kephalon</title></svelte:head>
{#key site}<PagesRoom {data} />{/key}
