<script lang="ts">
	import { wording } from '$ui/words/en/settings';
	import Button from '$ui/parts/Button.svelte';
	import type { Action } from '$ui/workspace/actions';
	import { STARTING_SETS, type Reach, labelled } from '$core';
	import { onDestroy } from 'svelte';
	import * as client from '$ui/client';
	import { benchInView } from '$ui/workspace/context';
	import { pagesInWords } from '$ui/parts/words';

	/** Fields and templates for common kinds of pages; what one would change is shown before it is taken. */
	let { act }: { act: (action: Action) => Promise<void> } = $props();
	const bench = benchInView();

	let chosen = $state<string | undefined>();
	let reach = $state.raw<Reach | 'counting' | undefined>();
	let why = $state('');
	let stop: AbortController | undefined;
	onDestroy(() => stop?.abort());

	async function look(set: string) {
		stop?.abort();
		const mine = (stop = new AbortController());
		[chosen, reach] = [set, 'counting'];
		const found = await client
			.reach(bench.data.site.name, { type: bench.working.type?.name ?? '', set }, mine.signal)
			.catch(() => client.NO_ANSWER);
		if (mine.signal.aborted) return;
		if (client.isRefused(found)) [reach, why] = [undefined, found.refused];
		else reach = found;
	}
	async function take(set: string) {
		chosen = undefined;
		await act({ do: 'add', name: bench.working.type?.name ?? '', set });
	}
</script>

<ul>
	{#each STARTING_SETS as one (one.name)}
		<li class="mt-1.25 text-sm">
			<div class="row flex items-start gap-2">
				<span class="flex-1"
					><strong>{labelled(one.label)}</strong> <span class="text-ink-soft">{labelled(one.purpose)}</span></span
				>
				<Button class="flex-none" aria-expanded={chosen === one.name} onclick={() => look(one.name)}
					>{wording.lookAtIt}</Button
				>
			</div>
			{#if chosen === one.name}
				<div class="told mx-0 mt-1 mb-2 border-l-3 border-l-sea pl-2 wrap-anywhere" data-testid="set-reach">
					<p class="mb-1">
						{wording.tags}
						<span class="font-mono">{one.rules.map(({ tag }) => tag).join(', ')}</span
						>{#if one.fields.length > 0}{wording.fields2}
							<span class="font-mono">{one.fields.map(({ name }) => name).join(', ')}</span
							>{/if}{wording.rulesOfTheSameTagsAre}
					</p>
					<p class="mb-1" role="status">
						{#if reach === 'counting'}{wording.countingThePagesItReaches}
						{:else if reach}
							<strong>{wording.wouldChange(pagesInWords(reach.changed))}</strong>{reach.worse
								? wording.forTheWorse(reach.worse)
								: ''}{reach.better ? wording.forTheBetter(reach.better) : ''}.
						{:else}{wording.howFarItReachesCouldNotBe(why)}{/if}
					</p>
					{#if typeof reach === 'object'}
						<ul>
							{#each reach.worst.slice(0, 3) as page (page.path)}
								<li class="mt-1.25 text-sm">
									<span class="font-mono">{page.path}</span>
									<span class="font-mono text-ink-soft">{page.tag}</span>:
									<span class="font-serif">{page.before || wording.nothing}</span>
									→
									<span class="font-serif">{page.after || wording.nothing}</span>
								</li>
							{/each}
						</ul>
					{/if}
					<Button look="main" onclick={() => take(one.name)}>{wording.takeIt}</Button>
					<Button look="link" class="ml-2.5" onclick={() => (chosen = undefined)}>{wording.leaveIt}</Button>
				</div>
			{/if}
		</li>
	{/each}
</ul>
