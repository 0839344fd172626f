<script lang="ts">
	import { wording } from '$ui/words/en/people';
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

<h2 class="mt-8 mb-1 font-semibold">{wording.recoveryCodes}</h2>
<p class="text-ink-soft">
	{left === 0
		? wording.noneYetWithACodeOneChooses
		: wording.leftEachWorksOnceNewOnesTake(left === 1 ? wording.oneIs : wording.are(left))}
</p>
{#if codes.length > 0}
	<div class="told mt-2 border-l-4 border-l-sea bg-sheet px-3 py-2" role="status">
		<p><strong>{wording.keepTheseWhereOnlyYouFind}</strong> {wording.theyAreShownThisOnce}</p>
		<ul class="mt-1 grid grid-cols-2 gap-x-6 font-mono select-all" data-testid="codes">
			{#each codes as code (code)}<li>{code}</li>{/each}
		</ul>
		<p class="mt-2 flex gap-2">
			<Button onclick={() => navigator.clipboard.writeText(codes.join('\n'))}>{wording.copy}</Button>
			<Button onclick={() => (codes = [])}>{wording.iHaveThem}</Button>
		</p>
	</div>
{:else}
	<form class="mt-2 flex flex-wrap items-end gap-2" onsubmit={make}>
		{#if hasPassword}<label class="grid gap-1"
				>{wording.yourPasswordForNewCodes}
				<input type="password" autocomplete="current-password" required bind:value={password} /></label
			>{/if}
		<Button disabled={busy}>{wording.makeTenCodes}</Button>
	</form>
	{#if refused}<p class="mt-1" role="alert">{refused}</p>{/if}
{/if}
