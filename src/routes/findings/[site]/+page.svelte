<script lang="ts">
	import FindingsRoom from '$ui/findings/FindingsRoom.svelte';
	let { data } = $props();
</script>

<svelte:head><title>Findings · {data.site.name} · Kephalon</title></svelte:head>
{#key data.site.name}<FindingsRoom {data} />{/key}
