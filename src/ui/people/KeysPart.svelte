<script lang="ts">
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

<h2 class="mt-10 mb-1 font-semibold" id="keys">Keys of machines</h2>
<p class="text-ink-soft">
	A front end that fetches the heads of a private site, a job that pushes content: each has a key of its own, sent as
	<span class="font-mono">Authorization: Bearer kephalon_…</span>. What can be asked for:
	<a class="underline underline-offset-2" href="/programs">For programs</a>.
</p>
{#if asking.refused}<p class="fault mt-2 text-gone" role="alert">{asking.refused}</p>{/if}
{#if told}
	<ToldOnce
		what="The key “{told.name}”."
		says="It is shown this once: nothing here can tell it again."
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
						data-tip="Makes another that may do the same; this one goes on for a week."
						onclick={() => make(where, { name: key.name, scopes: key.scopes, instead: key.id })}
						>Another in its place</Button
					>
					<Button
						look="link"
						onclick={() => asking.done(call('DELETE /sites/{site}/keys', { site: where, body: { id: key.id } }))}
						>Take away</Button
					>
				</span>
			</li>
		{/each}
	{/each}
	{#if keys.every(({ keys: all }) => all.length === 0)}<li class="key">
			<Empty says="No program has a key yet.">A key lets one program in, at one site, for what it is given below.</Empty
			>
		</li>{/if}
</ul>
{#if keys.length > 0}
	<form class="mt-4 flex flex-wrap items-end gap-3" onsubmit={add}>
		<label class="grid gap-1">A new key’s name <input required maxlength="80" bind:value={name} /></label>
		<label class="grid gap-1"
			>Site <Select value={at} choices={keys.map(({ site: one }) => one)} set={(one) => (site = one)} /></label
		>
		<fieldset class="flex gap-3 pb-1">
			<legend class="sr-only">What it may do</legend>
			{#each SCOPES as scope (scope)}
				<label class="flex items-center gap-1"
					><input type="checkbox" value={scope} bind:group={scopes} /> {SCOPE_WORDS[scope]}</label
				>
			{/each}
		</fieldset>
		<label class="grid gap-1">Until the end of <input type="date" bind:value={ends} /></label>
		<Button look="main">Make a key</Button>
	</form>
{/if}
