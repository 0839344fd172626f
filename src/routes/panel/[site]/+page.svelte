<script lang="ts">
	import { wording } from '$ui/words/en/pagesAbout';
	import PanelRoom from '$ui/panel/PanelRoom.svelte';
	let { data } = $props();
</script>

<svelte:head>
	<title>{wording.howAPageOfIsSharedKephalon(data.site)}</title>
	<!-- Whatever leads on from here leads out of the frame. -->
	<base target="_blank" />
</svelte:head>

<PanelRoom site={data.site} host={data.host} isIn={data.isIn} />
