<script lang="ts">
	import { wording } from '$ui/words/en/pagesAbout';
	import ReleasesRoom from '$ui/releases/ReleasesRoom.svelte';
	let { data } = $props();
</script>

<svelte:head><title>{wording.releasesKephalon(data.site.name)}</title></svelte:head>
{#key data.site.name}<ReleasesRoom {data} />{/key}
