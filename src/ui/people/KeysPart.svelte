<script lang="ts">
	import { wording } from '$ui/words/en/people';
	import Empty from '$ui/parts/Empty.svelte';
	import Select from '$ui/parts/select/Select.svelte';
	import Button from '$ui/parts/Button.svelte';
	import { Asking } from './asking.svelte';
	import ToldOnce from './ToldOnce.svelte';
	import { SCOPES, type Scope } from '$core';
	import { call } from '$ui/client';
	import type { AccessKey } from '$server/store/people/people';
	import { keyInWords, SCOPE_WORDS } from './words';

	/** The keys of machines at sites: what each may do, until when, and when it was used. */
	let { keys }: { keys: readonly { readonly site: string; readonly keys: readonly AccessKey[] }[] } = $props();

	const asking = new Asking();
	/** A key that was just made: its secret is told this once. */
	let told = $state<{ readonly name: string; readonly secret: string } | undefined>();
	let [site, name, ends] = $state(['', '', '']);
	let scopes = $state<Scope[]>(['read']);
	const at = $derived(site || (keys[0]?.site ?? ''));

	type Body = Parameters<typeof call<'POST /sites/{site}/keys'>>[1]['body'];
	async function make(where: string, body: Body) {
		const made = await asking.done(call('POST /sites/{site}/keys', { site: where, body }));
		if (made) told = { name: body.name, secret: made.secret };
		return made !== undefined;
	}
	async function add(event: SubmitEvent) {
		event.preventDefault();
		const body = { name, scopes, ...(ends && { ends: `${ends}T23:59:59Z` }) };
		if (await make(at, body)) [name, ends, scopes] = ['', '', ['read']];
	}
</script>

<h2 class="mt-10 mb-1 font-semibold" id="keys">{wording.keysOfMachines}</h2>
<p class="text-ink-soft">
	{wording.aFrontEndThatFetchesTheHeads}
	<span class="font-mono">{wording.authorizationBearerKephalon}</span>{wording.whatCanBeAskedFor}
	<a class="underline underline-offset-2" href="/programs">{wording.forPrograms}</a>.
</p>
{#if asking.refused}<p class="fault mt-2 text-gone" role="alert">{asking.refused}</p>{/if}
{#if told}
	<ToldOnce
		what={wording.theKey(told.name)}
		says={wording.itIsShownThisOnceNothingHere}
		secret={told.secret}
		testid="key"
		taken={() => (told = undefined)}
	/>
{/if}
<ul class="mt-2">
	{#each keys as { site: where, keys: all } (where)}
		{#each all as key (key.id)}
			<li class="key flex flex-wrap items-baseline gap-x-3 border-t border-t-rule py-1.5" data-key={key.name}>
				<strong>{key.name}</strong>
				<span class="text-ink-soft">{where}: {keyInWords(key, Date.now())}</span>
				<span class="ml-auto flex gap-3 text-sm">
					<Button
						look="link"
						data-tip={wording.makesAnotherThatMayDoTheSame}
						onclick={() => make(where, { name: key.name, scopes: key.scopes, instead: key.id })}
						>{wording.anotherInItsPlace}</Button
					>
					<Button
						look="link"
						onclick={() => asking.done(call('DELETE /sites/{site}/keys', { site: where, body: { id: key.id } }))}
						>{wording.takeAway}</Button
					>
				</span>
			</li>
		{/each}
	{/each}
	{#if keys.every(({ keys: all }) => all.length === 0)}<li class="key">
			<Empty says={wording.noProgramHasAKeyYet}>{wording.aKeyLetsOneProgramInAt}</Empty>
		</li>{/if}
</ul>
{#if keys.length > 0}
	<form class="mt-4 flex flex-wrap items-end gap-3" onsubmit={add}>
		<label class="grid gap-1">{wording.aNewKeysName} <input required maxlength="80" bind:value={name} /></label>
		<label class="grid gap-1"
			>{wording.site}
			<Select value={at} choices={keys.map(({ site: one }) => one)} set={(one) => (site = one)} /></label
		>
		<fieldset class="flex flex-wrap gap-x-3 gap-y-1 pb-1">
			<legend class="sr-only">{wording.whatItMayDo}</legend>
			{#each SCOPES as scope (scope)}
				<label class="flex items-center gap-1"
					><input type="checkbox" value={scope} bind:group={scopes} /> {SCOPE_WORDS[scope]}</label
				>
			{/each}
		</fieldset>
		<label class="grid gap-1">{wording.untilTheEndOf} <input type="date" bind:value={ends} /></label>
		<Button look="main">{wording.makeAKey}</Button>
	</form>
{/if}
