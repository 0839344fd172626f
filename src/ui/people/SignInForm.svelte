<script lang="ts">
	import { wording } from '$ui/words/en/people';
	import Button from '$ui/parts/Button.svelte';
	import { onMount } from 'svelte';
	import { call, isRefused } from '$ui/client';
	import { canUsePasskeys, signInByPasskey } from './passkeys';
	import { beginSignOn } from './signOn';

	/** Name and password. What is typed stays where it is not right. */
	let {
		done,
		name: known = '',
		signOn,
		to = '/'
	}: {
		done: () => void;
		name?: string;
		/** What the issuer of single sign-on is called, where there is one. */
		signOn?: string | undefined;
		/** Where one wants to go. */
		to?: string;
	} = $props();
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
	/** Signing in by a recovery code: it is taken for a new password. */
	let byCode = $state(false);
	let code = $state('');
	async function takeCode(event: SubmitEvent) {
		event.preventDefault();
		if (busy) return;
		busy = true;
		const taken = await call('POST /session/recovery', { body: { name, code } });
		busy = false;
		if (isRefused(taken)) return (refused = taken.refused);
		location.assign(`/invited#${taken.invitation}`);
	}
	async function bySignOn() {
		busy = true;
		refused = await beginSignOn(to);
		busy = false;
	}

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

{#if signOn}
	<p class="mb-5">
		<Button type="button" look="main" disabled={busy} onclick={bySignOn}>{wording.signOnBy(signOn)}</Button>
	</p>
{/if}
<form class="grid gap-3" onsubmit={byCode ? takeCode : signIn}>
	<label class="grid gap-1">{wording.name} <input autocomplete="username" required bind:value={name} /></label>
	{#if byCode}
		<label class="grid gap-1"
			>{wording.recoveryCode}
			<input class="font-mono" autocomplete="off" spellcheck="false" required bind:value={code} /></label
		>
	{:else}
		<label class="grid gap-1"
			>{wording.password}
			<input type="password" autocomplete="current-password" required bind:value={password} /></label
		>
	{/if}
	{#if refused}<p class="fault text-gone" role="alert">{refused}</p>{/if}
	<p class="flex gap-2">
		<Button look={signOn ? 'plain' : 'main'} disabled={busy}
			>{busy ? wording.signingIn : byCode ? wording.chooseANewPassword : wording.signIn}</Button
		>
		{#if hasPasskeys && !byCode}<Button type="button" disabled={busy} onclick={byPasskey}>{wording.withAPasskey}</Button
			>{/if}
		<Button type="button" look="link" class="ml-auto" onclick={() => (byCode = !byCode)}
			>{byCode ? wording.withAPassword : wording.withARecoveryCode}</Button
		>
	</p>
</form>
