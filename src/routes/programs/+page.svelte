<script lang="ts">
	import ProgramsRoom from '$ui/programs/ProgramsRoom.svelte';
	let { data } = $props();
</script>

<svelte:head><title>For programs · Kephalon</title></svelte:head>
<ProgramsRoom description={data.description} site={data.site} asked={data.asked} />
