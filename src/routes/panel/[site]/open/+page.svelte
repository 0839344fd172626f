<script lang="ts">
	import { onMount } from 'svelte';
	import { page } from '$app/state';
	import { call, isRefused } from '$ui/client';

	/** A window that a panel opened: whoever signed in here lets it in, and the window closes. */
	let told = $state('Letting the panel in …');
	onMount(async () => {
		const site = page.params.site ?? '';
		const answer = await call('POST /sites/{site}/panel/tokens', { site, body: {} });
		if (isRefused(answer)) return (told = answer.refused);
		const opener = window.opener as Window | null;
		if (!opener) return (told = 'You are signed in. Close this window, and press “Sign in” in the panel once more.');
		// Nobody hears it but a page of Kephalon.
		opener.postMessage({ kephalonPanel: answer.token, ends: answer.ends }, location.origin);
		window.close();
	});
</script>

<svelte:head><title>Kephalon</title></svelte:head>

<main class="mx-auto max-w-sm px-6 py-16">
	<h1 class="font-serif text-xl italic">Kephalon</h1>
	<p class="mt-3" role="status">{told}</p>
</main>
