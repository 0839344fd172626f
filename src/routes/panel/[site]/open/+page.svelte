<script lang="ts">
	import { wording } from '$ui/words/en/pagesAbout';
	import { onMount } from 'svelte';
	import { page } from '$app/state';
	import { call, isRefused } from '$ui/client';

	/** A window that a panel opened: whoever signed in here lets it in, and the window closes. */
	let told = $state(wording.lettingThePanelIn);
	onMount(async () => {
		const site = page.params.site ?? '';
		const answer = await call('POST /sites/{site}/panel/tokens', { site, body: {} });
		if (isRefused(answer)) return (told = answer.refused);
		const opener = window.opener as Window | null;
		if (!opener) return (told = wording.youAreSignedInCloseThis);
		// Nobody hears it but a page of Kephalon.
		opener.postMessage({ kephalonPanel: answer.token, ends: answer.ends }, location.origin);
		window.close();
	});
</script>

<svelte:head><title>{wording.kephalon2}</title></svelte:head>

<main class="mx-auto max-w-sm px-6 py-16">
	<h1 class="font-serif text-xl italic">{wording.kephalon2}</h1>
	<p class="mt-3" role="status">{told}</p>
</main>
