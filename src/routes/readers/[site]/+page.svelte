<script lang="ts">
	import ReadersRoom from '$ui/readers/ReadersRoom.svelte';
	let { data } = $props();
</script>

<svelte:head><title>Readers · {data.site.name} · Kephalon</title></svelte:head>
{#key data.site.name}<ReadersRoom {data} />{/key}
