<script lang="ts">
	import OverviewRoom from '$ui/overview/OverviewRoom.svelte';
	let { data } = $props();
</script>

<svelte:head><title>Overview · {data.site.name} · Kephalon</title></svelte:head>
{#key data.site.name}<OverviewRoom {data} />{/key}
