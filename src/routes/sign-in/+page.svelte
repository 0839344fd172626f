<script lang="ts">
	import { goto } from '$app/navigation';
	import SignInForm from '$ui/people/SignInForm.svelte';
	let { data } = $props();
</script>

<svelte:head><title>Sign in · Kephalon</title></svelte:head>

<main class="mx-auto max-w-sm px-6 py-16">
	<h1 class="font-serif text-xl italic">Kephalon</h1>
	<p class="mt-1 mb-6 text-ink-soft">What every address of a site says in its head.</p>
	{#if data.refused}<p class="fault mb-4 text-gone" role="alert">{data.refused}</p>{/if}
	<SignInForm signOn={data.signOn} to={data.to} done={() => void goto(data.to, { invalidateAll: true })} />
	<p class="mt-6 text-ink-soft">No way in any more? Whoever looks after this Kephalon makes a new invitation.</p>
</main>
