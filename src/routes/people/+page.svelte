<script lang="ts">
	import PeopleRoom from '$ui/people/PeopleRoom.svelte';
	let { data } = $props();
</script>

<svelte:head><title>People · Kephalon</title></svelte:head>

<PeopleRoom {...data} />
