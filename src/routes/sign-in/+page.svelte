<script lang="ts">
	import { wording } from '$ui/words/en/pagesAbout';
	import { goto } from '$app/navigation';
	import SignInForm from '$ui/people/SignInForm.svelte';
	let { data } = $props();
</script>

<svelte:head><title>{wording.signInKephalon}</title></svelte:head>

<main class="mx-auto max-w-sm px-6 py-16">
	<h1 class="font-serif text-xl italic">{wording.kephalon2}</h1>
	<p class="mt-1 mb-6 text-ink-soft">{wording.whatEveryAddressOfASiteSays}</p>
	{#if data.refused}<p class="fault mb-4 text-gone" role="alert">{data.refused}</p>{/if}
	<SignInForm signOn={data.signOn} to={data.to} done={() => void goto(data.to, { invalidateAll: true })} />
	<p class="mt-6 text-ink-soft">{wording.noWayInAnyMoreWhoeverLooks}</p>
</main>
