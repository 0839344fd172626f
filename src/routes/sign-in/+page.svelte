<script lang="ts">
	import { goto } from '$app/navigation';
	import SignInForm from '$ui/people/SignInForm.svelte';
	let { data } = $props();
</script>

<svelte:head><title>Sign in · Kephalon</title></svelte:head>

<main class="mx-auto max-w-sm px-6 py-16">
	<h1 class="serif text-3xl italic">Kephalon</h1>
	<p class="quiet mt-1 mb-6">What every address of a site says in its head.</p>
	{#if data.refused}<p class="fault mb-4" role="alert">{data.refused}</p>{/if}
	<SignInForm signOn={data.signOn} to={data.to} done={() => void goto(data.to, { invalidateAll: true })} />
	<p class="quiet mt-6">No way in any more? Whoever looks after this Kephalon makes a new invitation.</p>
</main>

<style>
	.fault {
		color: var(--gone);
	}
</style>
