<script lang="ts">
	import Button from '$ui/parts/Button.svelte';
	import { onMount } from 'svelte';
	import { goto } from '$app/navigation';
	import { refresh } from '$ui/parts/refresh';
	import { call, isRefused } from '$ui/client';
	import { addPasskey, canUsePasskeys } from '$ui/people/passkeys';
	import RecoveryPart from '$ui/people/RecoveryPart.svelte';
	import { beginSignOn } from '$ui/people/signOn';
	import NewPassword from '$ui/people/NewPassword.svelte';
	import { agentInWords, areaInWords, momentInWords } from '$ui/people/words';

	let { data } = $props();
	let told = $state('');
	let hasPasskeys = $state(false);
	onMount(() => void (hasPasskeys = canUsePasskeys()));
	let passkey = $state('');
	let refused = $state('');
	async function makePasskey(event: SubmitEvent) {
		event.preventDefault();
		refused = await addPasskey(passkey);
		if (refused === '') passkey = '';
		await refresh();
	}
	async function dropPasskey(id: string) {
		const left = await call('PATCH /me/passkeys', { body: { id } });
		refused = isRefused(left) ? left.refused : '';
		await refresh();
	}
	let bound = $state('');
	const bind = async () => void (bound = await beginSignOn('/account'));
	const others = $derived(data.sessions.filter(({ isThis }) => !isThis));

	async function take(password: string, old: string): Promise<string> {
		const changed = await call('PUT /me/password', { body: { old, password } });
		if (isRefused(changed)) return changed.refused;
		told = 'The password is changed; all other sessions have ended.';
		await refresh();
		return '';
	}
	async function endOthers() {
		const ended = await call('DELETE /me/sessions', { body: {} });
		told = isRefused(ended) ? ended.refused : 'All other sessions have ended.';
		await refresh();
	}
	async function signOut() {
		const out = await call('DELETE /session', { body: {} });
		if (isRefused(out)) told = out.refused;
		else if (out.leave !== undefined) location.assign(out.leave);
		else await goto('/sign-in', { invalidateAll: true });
	}
</script>

<svelte:head><title>{data.me.name || 'Alone'} · Kephalon</title></svelte:head>

<main class="mx-auto max-w-2xl px-6 py-12">
	<p><a class="font-serif italic" href="/sites">Kephalon</a></p>
	{#if data.me.kind === 'alone'}
		<h1 class="mt-3 text-xl font-semibold">Alone</h1>
		<p class="mt-2">
			There are no people: whoever is at this machine may do all. <a class="underline" href="/people">Add somebody</a>,
			and everybody signs in.
		</p>
	{:else}
		<h1 class="mt-3 text-xl font-semibold">{data.me.name}</h1>
		<p class="mt-1" role="status">{told}</p>
		<h2 class="mt-6 mb-1 font-semibold">What you are</h2>
		<ul>
			{#if data.isOwner}<li>Owner of every site. <a class="underline" href="/people">People</a></li>{/if}
			{#each Object.entries(data.roles) as [site, { role, area }] (site)}
				<li>
					<strong>{role}</strong> of {site}{areaInWords(area)}
					{#if role === 'owner' && !data.isOwner}<a class="underline" href="/people">People and keys</a>{/if}
				</li>
			{:else}{#if !data.isOwner}<li>Nothing yet. Whoever invited you says what you may do.</li>{/if}{/each}
		</ul>
		<h2 class="mt-6 mb-1 font-semibold">Where you are signed in</h2>
		<ul>
			{#each data.sessions as session, at (at)}
				<li class="border-t border-(--rule) py-1">
					{agentInWords(session.agent)}
					<span class="text-ink-soft"
						>since {momentInWords(session.made)}, last at {momentInWords(session.used)}{session.isThis
							? ': this one'
							: ''}</span
					>
				</li>
			{/each}
		</ul>
		<p class="mt-3 flex gap-2">
			<Button onclick={signOut}>Sign out</Button>
			{#if others.length > 0}<Button onclick={endOthers}>End all others</Button>{/if}
		</p>
		<h2 class="mt-8 mb-1 font-semibold">Passkeys</h2>
		<ul>
			{#each data.passkeys as { id, name, made, used } (id)}
				<li class="flex flex-wrap items-baseline gap-2 border-t border-(--rule) py-1">
					<strong>{name}</strong>
					<span class="text-ink-soft"
						>since {momentInWords(made)}{used ? `, used last ${momentInWords(used)}` : ', not used yet'}</span
					>
					<button class="ml-auto underline" aria-label="Take away {name}" onclick={() => dropPasskey(id)}
						>Take away</button
					>
				</li>
			{:else}<li class="text-ink-soft">
					None yet. With one, this device signs in for you: nothing to remember, nothing to be stolen.
				</li>{/each}
		</ul>
		{#if hasPasskeys}
			<form class="mt-2 flex flex-wrap items-end gap-2" onsubmit={makePasskey}>
				<label class="grid gap-1">Name of a new passkey <input maxlength="80" required bind:value={passkey} /></label>
				<Button>Make one on this device</Button>
			</form>
		{:else}
			<p class="mt-2 text-ink-soft">
				Passkeys are bound to a name: open Kephalon under its name, on this machine as http://localhost.
			</p>
		{/if}
		{#if refused}<p class="mt-1" role="alert">{refused}</p>{/if}
		<RecoveryPart left={data.codes} hasPassword={data.hasPassword} />
		{#if data.signOn}
			<h2 class="mt-8 mb-2 font-semibold">Single sign-on</h2>
			<p class="mb-2 text-ink-soft">
				It lets you in from then on. Where its rules name a site, they say what you are there, each time anew.
			</p>
			<p><Button onclick={bind}>Bind my account at {data.signOn} to this one</Button></p>
			{#if bound || data.refused}<p class="mt-1" role="alert">{bound || data.refused}</p>{/if}
		{/if}
		{#if data.hasPassword}
			<h2 class="mt-8 mb-2 font-semibold">Another password</h2>
			<div class="max-w-sm"><NewPassword {take} words="Change it" old /></div>
		{/if}
	{/if}
</main>
