<script lang="ts">
	import Button from '$ui/parts/Button.svelte';
	import { call, isRefused } from '$ui/client';
	import { refresh } from '$ui/parts/refresh';

	/** Codes for the day when nothing else lets one in: how many are left, and new ones, told once. */
	let { left, hasPassword }: { left: number; hasPassword: boolean } = $props();
	let password = $state('');
	let refused = $state('');
	let busy = $state(false);
	let codes = $state<readonly string[]>([]);

	async function make(event: SubmitEvent) {
		event.preventDefault();
		if (busy) return;
		busy = true;
		const made = await call('POST /me/recovery', { body: { ...(hasPassword && { password }) } });
		busy = false;
		if (isRefused(made)) return (refused = made.refused);
		[refused, password, codes] = ['', '', made.codes];
		await refresh();
	}
</script>

<h2 class="mt-8 mb-1 font-semibold">Recovery codes</h2>
<p class="text-ink-soft">
	{left === 0
		? 'None yet. With a code one chooses a new password, where the old one is forgotten and no passkey is at hand.'
		: `${left === 1 ? 'One is' : `${left} are`} left. Each works once. New ones take the place of those.`}
</p>
{#if codes.length > 0}
	<div class="told mt-2 border-l-4 border-l-sea bg-sheet px-3 py-2" role="status">
		<p><strong>Keep these where only you find them.</strong> They are shown this once.</p>
		<ul class="mt-1 grid grid-cols-2 gap-x-6 font-mono select-all" data-testid="codes">
			{#each codes as code (code)}<li>{code}</li>{/each}
		</ul>
		<p class="mt-2 flex gap-2">
			<Button onclick={() => navigator.clipboard.writeText(codes.join('\n'))}>Copy</Button>
			<Button onclick={() => (codes = [])}>I have them</Button>
		</p>
	</div>
{:else}
	<form class="mt-2 flex flex-wrap items-end gap-2" onsubmit={make}>
		{#if hasPassword}<label class="grid gap-1"
				>Your password, for new codes <input
					type="password"
					autocomplete="current-password"
					required
					bind:value={password}
				/></label
			>{/if}
		<Button disabled={busy}>Make ten codes</Button>
	</form>
	{#if refused}<p class="mt-1" role="alert">{refused}</p>{/if}
{/if}
