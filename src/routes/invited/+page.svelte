<script lang="ts">
	import { wording } from '$ui/words/en/pagesAbout';
	import { onMount } from 'svelte';
	import { goto } from '$app/navigation';
	import { call, isRefused } from '$ui/client';
	import NewPassword from '$ui/people/NewPassword.svelte';

	/** An invitation, by what stands behind the # of its link: that never leaves the browser but to be taken. */
	let name = $state('');
	let refused = $state('');
	let token = '';
	onMount(async () => {
		token = location.hash.slice(1);
		// Neither in the history nor over anybody's shoulder.
		history.replaceState(history.state, '', location.pathname);
		const found = await call('POST /invitations', { body: { token } });
		if (isRefused(found)) refused = found.refused;
		else name = found.name;
	});
	async function take(password: string): Promise<string> {
		const taken = await call('POST /invitations', { body: { token, password } });
		if (isRefused(taken)) return taken.refused;
		await goto('/', { invalidateAll: true });
		return '';
	}
</script>

<svelte:head><title>{wording.anInvitationKephalon}</title></svelte:head>

<main class="mx-auto max-w-sm px-6 py-16">
	<h1 class="font-serif text-xl italic">{wording.kephalon2}</h1>
	{#if refused}
		<p class="mt-4" role="alert">{refused}</p>
	{:else if name}
		<p class="mt-4 mb-6"><strong>{wording.welcome(name)}</strong> {wording.chooseAPasswordAndYouAreIn}</p>
		<NewPassword {take} words={wording.comeIn} />
	{:else}
		<p class="mt-4 text-ink-soft" role="status">{wording.lookingAtTheInvitation}</p>
	{/if}
</main>
