<script lang="ts">
	import type { Action } from '$ui/workspace/actions';
	import { STARTING_SETS, type Reach } from '$core';
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
		<li>
			<div class="row">
				<span class="grow"><strong>{one.label}</strong> <span class="quiet">{one.purpose}</span></span>
				<button class="plain-button" aria-expanded={chosen === one.name} onclick={() => look(one.name)}
					>Look at it</button
				>
			</div>
			{#if chosen === one.name}
				<div class="told" data-testid="set-reach">
					<p>
						Tags: <span class="mono">{one.rules.map(({ tag }) => tag).join(', ')}</span>{#if one.fields.length > 0};
							fields:
							<span class="mono">{one.fields.map(({ name }) => name).join(', ')}</span>{/if}. Rules of the same tags are
						replaced.
					</p>
					<p role="status">
						{#if reach === 'counting'}Counting the pages it reaches …
						{:else if reach}
							<strong>{pagesInWords(reach.changed)} would change</strong>{reach.worse
								? `; ${reach.worse} for the worse`
								: ''}{reach.better ? `; ${reach.better} for the better` : ''}.
						{:else}How far it reaches could not be counted. {why}{/if}
					</p>
					{#if typeof reach === 'object'}
						<ul>
							{#each reach.worst.slice(0, 3) as page (page.path)}
								<li>
									<span class="mono">{page.path}</span>
									<span class="mono quiet">{page.tag}</span>: <span class="serif">{page.before || 'nothing'}</span> →
									<span class="serif">{page.after || 'nothing'}</span>
								</li>
							{/each}
						</ul>
					{/if}
					<button class="main-button" onclick={() => take(one.name)}>Take it</button>
					<button class="link" onclick={() => (chosen = undefined)}>Leave it</button>
				</div>
			{/if}
		</li>
	{/each}
</ul>

<style>
	li {
		margin-top: 5px;
		font-size: 13px;
	}
	.row {
		display: flex;
		gap: 8px;
		align-items: start;
	}
	.grow {
		flex: 1;
	}
	.row button {
		flex: none;
	}
	.told {
		margin: 4px 0 8px;
		border-left: 3px solid var(--sea);
		padding-left: 8px;
		overflow-wrap: anywhere;
	}
	.told p {
		margin-bottom: 4px;
	}
	.link {
		margin-left: 10px;
	}
</style>
