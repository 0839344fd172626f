<script lang="ts">
	import PanelRoom from '$ui/panel/PanelRoom.svelte';
	let { data } = $props();
</script>

<svelte:head>
	<title>How a page of {data.site} is shared · Kephalon</title>
	<!-- Whatever leads on from here leads out of the frame. -->
	<base target="_blank" />
</svelte:head>

<PanelRoom site={data.site} host={data.host} isIn={data.isIn} />
