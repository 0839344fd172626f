<script lang="ts">
	import { wording } from '$ui/words/en/pagesAbout';
	import { momentInWords } from '$ui/words/speaking';
	import Button from '$ui/parts/Button.svelte';
	import { onMount } from 'svelte';
	import { goto } from '$app/navigation';
	import { refresh } from '$ui/parts/refresh';
	import { call, isRefused } from '$ui/client';
	import { addPasskey, canUsePasskeys } from '$ui/people/passkeys';
	import RecoveryPart from '$ui/people/RecoveryPart.svelte';
	import { beginSignOn } from '$ui/people/signOn';
	import NewPassword from '$ui/people/NewPassword.svelte';
	import { agentInWords, areaInWords } from '$ui/people/words';

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
		told = wording.thePasswordIsChangedAllOther;
		await refresh();
		return '';
	}
	async function endOthers() {
		const ended = await call('DELETE /me/sessions', { body: {} });
		told = isRefused(ended) ? ended.refused : wording.allOtherSessionsHaveEnded;
		await refresh();
	}
	async function signOut() {
		const out = await call('DELETE /session', { body: {} });
		if (isRefused(out)) told = out.refused;
		else if (out.leave !== undefined) location.assign(out.leave);
		else await goto('/sign-in', { invalidateAll: true });
	}
</script>

<svelte:head><title>{wording.kephalon(data.me.name || wording.alone)}</title></svelte:head>

<main class="mx-auto max-w-2xl px-6 py-12">
	<p><a class="font-serif italic" href="/sites">{wording.kephalon2}</a></p>
	{#if data.me.kind === 'alone'}
		<h1 class="mt-3 text-xl font-semibold">{wording.alone}</h1>
		<p class="mt-2">
			{wording.thereAreNoPeopleWhoeverIsAt}
			<a class="underline" href="/people">{wording.addSomebody}</a>{wording.andEverybodySignsIn}
		</p>
	{:else}
		<h1 class="mt-3 text-xl font-semibold">{data.me.name}</h1>
		<p class="mt-1" role="status">{told}</p>
		<h2 class="mt-6 mb-1 font-semibold">{wording.whatYouAre}</h2>
		<ul>
			{#if data.isOwner}<li>
					{wording.ownerOfEverySite} <a class="underline" href="/people">{wording.people}</a>
				</li>{/if}
			{#each Object.entries(data.roles) as [site, { role, area }] (site)}
				<li>
					<strong>{role}</strong>
					{wording.of(site, areaInWords(area))}
					{#if role === 'owner' && !data.isOwner}<a class="underline" href="/people">{wording.peopleAndKeys}</a>{/if}
				</li>
			{:else}{#if !data.isOwner}<li>{wording.nothingYetWhoeverInvitedYou}</li>{/if}{/each}
		</ul>
		<h2 class="mt-6 mb-1 font-semibold">{wording.whereYouAreSignedIn}</h2>
		<ul>
			{#each data.sessions as session, at (at)}
				<li class="border-t border-(--rule) py-1">
					{agentInWords(session.agent)}
					<span class="text-ink-soft"
						>{wording.sinceLastAt(
							momentInWords(session.made),
							momentInWords(session.used),
							session.isThis ? wording.thisOne : ''
						)}</span
					>
				</li>
			{/each}
		</ul>
		<p class="mt-3 flex gap-2">
			<Button onclick={signOut}>{wording.signOut}</Button>
			{#if others.length > 0}<Button onclick={endOthers}>{wording.endAllOthers}</Button>{/if}
		</p>
		<h2 class="mt-8 mb-1 font-semibold">{wording.passkeys}</h2>
		<ul>
			{#each data.passkeys as { id, name, made, used } (id)}
				<li class="flex flex-wrap items-baseline gap-2 border-t border-(--rule) py-1">
					<strong>{name}</strong>
					<span class="text-ink-soft"
						>{wording.since(
							momentInWords(made),
							used ? wording.usedLast(momentInWords(used)) : wording.notUsedYet
						)}</span
					>
					<button class="ml-auto underline" aria-label={wording.takeAway(name)} onclick={() => dropPasskey(id)}
						>{wording.takeAway2}</button
					>
				</li>
			{:else}<li class="text-ink-soft">
					{wording.noneYetWithOneThisDevice}
				</li>{/each}
		</ul>
		{#if hasPasskeys}
			<form class="mt-2 flex flex-wrap items-end gap-2" onsubmit={makePasskey}>
				<label class="grid gap-1"
					>{wording.nameOfANewPasskey} <input maxlength="80" required bind:value={passkey} /></label
				>
				<Button>{wording.makeOneOnThisDevice}</Button>
			</form>
		{:else}
			<p class="mt-2 text-ink-soft">
				{wording.passkeysAreBoundToANameOpen}
			</p>
		{/if}
		{#if refused}<p class="mt-1" role="alert">{refused}</p>{/if}
		<RecoveryPart left={data.codes} hasPassword={data.hasPassword} />
		{#if data.signOn}
			<h2 class="mt-8 mb-2 font-semibold">{wording.singleSignOn}</h2>
			<p class="mb-2 text-ink-soft">
				{wording.itLetsYouInFromThenOn}
			</p>
			<p><Button onclick={bind}>{wording.bindMyAccountAtToThisOne(data.signOn)}</Button></p>
			{#if bound || data.refused}<p class="mt-1" role="alert">{bound || data.refused}</p>{/if}
		{/if}
		{#if data.hasPassword}
			<h2 class="mt-8 mb-2 font-semibold">{wording.anotherPassword}</h2>
			<div class="max-w-sm"><NewPassword {take} words={wording.changeIt} old /></div>
		{/if}
	{/if}
</main>
