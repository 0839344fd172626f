<script lang="ts">
	import { wording } from '$ui/words/en/pagesAbout';
	import ReadersRoom from '$ui/readers/ReadersRoom.svelte';
	let { data } = $props();
</script>

<svelte:head><title>{wording.readersKephalon(data.site.name)}</title></svelte:head>
{#key data.site.name}<ReadersRoom {data} />{/key}
