<script lang="ts">
	import PartsSheet from '$ui/parts/shown/PartsSheet.svelte';
</script>

<svelte:head><title>Parts · Kephalon</title></svelte:head>
<PartsSheet />
