<script lang="ts">
	import { wording } from '$ui/words/en/pagesAbout';
	import PeopleRoom from '$ui/people/PeopleRoom.svelte';
	let { data } = $props();
</script>

<svelte:head><title>{wording.peopleKephalon}</title></svelte:head>

<PeopleRoom {...data} />
