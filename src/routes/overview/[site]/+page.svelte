<script lang="ts">
	import { wording } from '$ui/words/en/pagesAbout';
	import OverviewRoom from '$ui/overview/OverviewRoom.svelte';
	let { data } = $props();
</script>

<svelte:head><title>{wording.overviewKephalon(data.site.name)}</title></svelte:head>
{#key data.site.name}<OverviewRoom {data} />{/key}
