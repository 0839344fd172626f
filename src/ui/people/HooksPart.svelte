<script lang="ts">
	import { wording } from '$ui/words/en/people';
	import Button from '$ui/parts/Button.svelte';
	import { Asking } from './asking.svelte';
	import ToldOnce from './ToldOnce.svelte';
	import Disclosure from '$ui/parts/shown/Disclosure.svelte';
	import Select from '$ui/parts/select/Select.svelte';
	import { call, isRefused } from '$ui/client';
	import type { MessageTold } from '$server/http/contract/people';
	import type { HookEvent, Webhook } from '$server/store/hooks/hooks';
	import { EVENT_WORDS, EVENTS, messageInWords } from './hooks';

	/** Addresses that are told what happens at sites: what of, whether it comes through, and each try. */
	let { hooks }: { hooks: readonly { readonly site: string; readonly hooks: readonly Webhook[] }[] } = $props();

	const asking = new Asking();
	/** An address that was just added: its secret is told this once. */
	let told = $state<{ readonly address: string; readonly secret: string } | undefined>();
	let [site, address] = $state(['', '']);
	let events = $state<HookEvent[]>(['release.made']);
	let inside = $state(false);
	const at = $derived(site || (hooks[0]?.site ?? ''));
	/** What an address was told, once somebody looks. */
	let messages = $state.raw<Readonly<Record<number, readonly MessageTold[]>>>({});

	async function add(event: SubmitEvent) {
		event.preventDefault();
		const body = { address: address.trim(), events, ...(inside && { inside }) };
		const made = await asking.done(call('POST /sites/{site}/webhooks', { site: at, body }));
		if (!made) return;
		told = { address: body.address, secret: made.secret };
		[address, events, inside] = ['', ['release.made'], false];
	}
	async function look(where: string, webhook: number) {
		const answer = await call('GET /sites/{site}/webhooks/messages', { site: where, query: { webhook } });
		if (isRefused(answer)) asking.refused = answer.refused;
		else messages = { ...messages, [webhook]: answer };
	}
	async function send(where: string, webhook: number, message?: string) {
		const body = message === undefined ? { webhook } : { message };
		if (await asking.done(call('POST /sites/{site}/webhooks/messages', { site: where, body })))
			await look(where, webhook);
	}
</script>

<h2 class="mt-10 mb-1 font-semibold" id="webhooks">{wording.webhooks}</h2>
<p class="text-ink-soft">
	{wording.addressesThatAreToldWhen}
</p>
{#if asking.refused}<p class="fault mt-2 text-gone" role="alert">{asking.refused}</p>{/if}
{#if told}
	<ToldOnce
		what={wording.theSecretFor(told.address)}
		says={wording.itIsShownThisOnceWhoever}
		secret={told.secret}
		testid="hook-secret"
		taken={() => (told = undefined)}
	/>
{/if}
<ul class="mt-2">
	{#each hooks as { site: where, hooks: all } (where)}
		{#each all as hook (hook.id)}
			<li class="border-t border-t-rule py-1.5" data-hook={hook.address}>
				<p class="flex flex-wrap items-baseline gap-x-3">
					<strong class="font-mono wrap-anywhere">{hook.address}</strong>
					<span class="text-ink-soft"
						>{where}: {hook.events.map((event) => EVENT_WORDS[event]).join(', ')}{hook.inside
							? wording.insideANetwork
							: ''}{hook.waiting > 0 ? wording.yetToComeThrough(hook.waiting) : ''}</span
					>
					<span class="ml-auto flex gap-3 text-sm">
						<Button look="link" onclick={() => send(where, hook.id)}>{wording.tryIt}</Button>
						<Button
							look="link"
							onclick={() =>
								asking.done(
									call('PATCH /sites/{site}/webhooks', {
										site: where,
										body: { id: hook.id, on: hook.stopped !== undefined }
									})
								)}>{hook.stopped === undefined ? wording.switchOff : wording.switchOn}</Button
						>
						<Button
							look="link"
							onclick={() => asking.done(call('DELETE /sites/{site}/webhooks', { site: where, body: { id: hook.id } }))}
							>{wording.takeAway}</Button
						>
					</span>
				</p>
				{#if hook.stopped !== undefined}<p class="text-sm text-gone">{wording.nothingIsSentToIt(hook.stopped)}</p>{/if}
				<Disclosure
					class="text-sm"
					label={wording.whatItWasTold}
					bind:open={
						() => messages[hook.id] !== undefined,
						(open) => {
							if (open) void look(where, hook.id);
							else messages = Object.fromEntries(Object.entries(messages).filter(([id]) => Number(id) !== hook.id));
						}
					}
				>
					<ol class="pl-4">
						{#each messages[hook.id] ?? [] as message (message.id)}
							<li class="flex flex-wrap items-baseline gap-x-3">
								<span>{messageInWords(message)}</span>
								<Button look="link" onclick={() => send(where, hook.id, message.id)}>{wording.sendAgain}</Button>
							</li>
						{:else}<li class="text-ink-soft">{wording.nothingYet}</li>{/each}
					</ol>
				</Disclosure>
			</li>
		{/each}
	{/each}
</ul>
{#if hooks.length > 0}
	<form class="mt-3 grid gap-3" onsubmit={add}>
		<p class="flex flex-wrap items-end gap-3">
			<label class="grid gap-1"
				>{wording.site}
				<Select value={at} choices={hooks.map(({ site: one }) => one)} set={(one) => (site = one)} /></label
			>
			<label class="grid flex-1 gap-1"
				>{wording.address}
				<input class="font-mono" type="url" placeholder="https://hooks.example/kephalon" bind:value={address} /></label
			>
			<Button look="main" disabled={address.trim() === '' || events.length === 0}>{wording.tellThisAddress}</Button>
		</p>
		<fieldset class="flex flex-wrap gap-3">
			<legend class="sr-only">{wording.whatItIsToldOf}</legend>
			{#each EVENTS as event (event)}
				<label class="flex items-center gap-1"
					><input type="checkbox" value={event} bind:group={events} /> {EVENT_WORDS[event]}</label
				>
			{/each}
			<label class="flex items-center gap-1"
				><input type="checkbox" bind:checked={inside} /> {wording.itMayLieInsideANetwork}</label
			>
		</fieldset>
	</form>
{/if}
