<script lang="ts">
	import { onMount } from 'svelte';
	import { call, isRefused } from '$ui/client';
	import { canUsePasskeys, signInByPasskey } from './passkeys';

	/** Name and password. What is typed stays where it is not right. */
	let { done, name: known = '' }: { done: () => void; name?: string } = $props();
	let name = $state('');
	let password = $state('');
	let refused = $state('');
	let busy = $state(false);
	let hasPasskeys = $state(false);
	onMount(() => void (hasPasskeys = canUsePasskeys()));
	async function byPasskey() {
		busy = true;
		refused = await signInByPasskey();
		busy = false;
		if (refused === '') done();
	}
	$effect(() => void (name ||= known));

	async function signIn(event: SubmitEvent) {
		event.preventDefault();
		if (busy) return;
		busy = true;
		refused = '';
		const answer = await call('POST /session', { body: { name, password } });
		busy = false;
		if (isRefused(answer)) return (refused = answer.refused);
		password = '';
		done();
	}
</script>

<form class="grid gap-3" onsubmit={signIn}>
	<label class="grid gap-1">Name <input autocomplete="username" required bind:value={name} /></label>
	<label class="grid gap-1"
		>Password <input type="password" autocomplete="current-password" required bind:value={password} /></label
	>
	{#if refused}<p class="fault" role="alert">{refused}</p>{/if}
	<p class="flex gap-2">
		<button class="main-button" disabled={busy}>{busy ? 'Signing in …' : 'Sign in'}</button>
		{#if hasPasskeys}<button type="button" class="plain-button" disabled={busy} onclick={byPasskey}
				>With a passkey</button
			>{/if}
	</p>
</form>

<style>
	.fault {
		color: var(--gone);
	}
</style>
