<script lang="ts">
	import ReleasesRoom from '$ui/releases/ReleasesRoom.svelte';
	let { data } = $props();
</script>

<svelte:head><title>Releases · {data.site.name} · Kephalon</title></svelte:head>
{#key data.site.name}<ReleasesRoom {data} />{/key}
