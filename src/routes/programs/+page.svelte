<script lang="ts">
	import { wording } from '$ui/words/en/pagesAbout';
	import ProgramsRoom from '$ui/programs/ProgramsRoom.svelte';
	let { data } = $props();
</script>

<svelte:head><title>{wording.forProgramsKephalon}</title></svelte:head>
<ProgramsRoom description={data.description} site={data.site} asked={data.asked} />
