<script lang="ts">
	import { wording } from '$ui/words/en/people';
	import Button from '$ui/parts/Button.svelte';
	/** A password that is chosen, written twice. */
	let {
		take,
		words,
		old = false
	}: { take: (password: string, old: string) => Promise<string>; words: string; old?: boolean } = $props();
	let before = $state('');
	let password = $state('');
	let again = $state('');
	let refused = $state('');
	let busy = $state(false);

	async function send(event: SubmitEvent) {
		event.preventDefault();
		if (busy) return;
		if (password !== again) return (refused = wording.theTwoAreNotTheSame);
		busy = true;
		refused = await take(password, before);
		busy = false;
		if (refused === '') before = password = again = '';
	}
</script>

<form class="grid gap-3" onsubmit={send}>
	{#if old}<label class="grid gap-1"
			>{wording.oldPassword}
			<input type="password" autocomplete="current-password" required bind:value={before} /></label
		>{/if}
	<label class="grid gap-1"
		>{wording.newPassword}
		<input
			type="password"
			autocomplete="new-password"
			required
			aria-describedby="password-told"
			bind:value={password}
		/></label
	>
	<label class="grid gap-1"
		>{wording.theSameAgain} <input type="password" autocomplete="new-password" required bind:value={again} /></label
	>
	<p id="password-told" class="text-ink-soft">{wording.twelveCharactersOrMore}</p>
	{#if refused}<p class="fault text-gone" role="alert">{refused}</p>{/if}
	<p><Button look="main" disabled={busy}>{words}</Button></p>
</form>
