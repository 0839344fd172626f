<script lang="ts">
	import { wording } from '$ui/words/en/pagesAbout';
	import FindingsRoom from '$ui/findings/FindingsRoom.svelte';
	let { data } = $props();
</script>

<svelte:head><title>{wording.findingsKephalon(data.site.name)}</title></svelte:head>
{#key data.site.name}<FindingsRoom {data} />{/key}
