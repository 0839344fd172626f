<script lang="ts">
	import {
		describeOutcome,
		describePassedOver,
		describeRule,
		describeWithheld,
		pinnedValue,
		type TraceStep
	} from '$core';
	import type { EditableLayer } from '$ui/parts/words';
	import { benchInView } from '$ui/workspace/context';
	import FoundLine from './FoundLine.svelte';
	import LayerField from '$ui/fields/LayerField.svelte';
	import LayerMark from '$ui/parts/LayerMark.svelte';

	/** The four layers of one tag, most specific on top: what each says, what became of it, and its field. */
	let { settings, study }: { settings: (layer: EditableLayer) => void; study: () => void } = $props();
	const bench = benchInView();

	const trace = $derived(bench.line?.trace);
	const winner = $derived(trace?.steps[trace.winner]);
	const stepsOf = (layer: TraceStep['layer']) =>
		trace?.steps.filter((step) => step.layer === layer && step.rule.kind !== 'found') ?? [];
	const found = $derived(trace?.steps.find((step) => step.rule.kind === 'found'));
	const pages = (count: number) => `${count.toLocaleString('en')} ${count === 1 ? 'page' : 'pages'}`;
	// The layers are the same through all edits: only what they say is drawn again.
	const LAYERS: readonly EditableLayer[] = ['page', 'type', 'site'];
	const names: Readonly<Record<EditableLayer, string>> = $derived({
		page: 'This page',
		type: `Every ${(bench.working.type?.label ?? bench.data.page.type).toLowerCase()}`,
		site: 'The whole site'
	});
	const scopes: Readonly<Record<EditableLayer, string>> = $derived({
		page: bench.data.page.path,
		type: pages(bench.data.count.byType[bench.data.page.type] ?? 0),
		site: pages(bench.data.count.all)
	});
	/** Robots that something is said to already, here or on the site. */
	const robots = $derived([
		...new Set(
			[...bench.working.site.rules, ...(bench.working.type?.rules ?? []), ...bench.working.page.rules].flatMap(
				({ tag }) => (tag.startsWith('robots:') ? tag.slice(7) : [])
			)
		)
	]);
	let robot = $derived(bench.tag.startsWith('robots:') ? bench.tag.slice(7) : '');
	const pin = $derived(bench.working.page.pinned?.[bench.tag]);
	const value = $derived(pinnedValue(bench.working.told.head, bench.tag));
	const isBroken = $derived(pin !== undefined && pin !== value);
	function setPin(text: string | undefined) {
		const { [bench.tag]: _old, ...others } = bench.working.page.pinned ?? {};
		const all = text === undefined ? others : { ...others, [bench.tag]: text };
		bench.change('page', { pinned: Object.keys(all).length > 0 ? all : null });
	}
	const note = $derived(trace && (trace.withheld ? describeWithheld(trace.withheld) : describePassedOver(trace)));
</script>

<section class="stack" aria-label="Layers of {bench.tag}">
	<header>
		<h2 class="mono">{bench.tag}</h2>
		<p class="quiet">{bench.definition?.purpose ?? ''}</p>
		{#if bench.definition?.kind === 'directives'}
			<form
				class="robot"
				onsubmit={(event) => {
					event.preventDefault();
					const name = robot.trim().toLowerCase();
					bench.tag = name === '' ? 'robots' : `robots:${name}`;
				}}
			>
				<label for="robot">For</label>
				<input id="robot" class="mono" list="robots" placeholder="all robots" bind:value={robot} />
				<datalist id="robots">
					{#each robots as name (name)}<option value={name}></option>{/each}
				</datalist>
				<button class="plain-button">Show</button>
				<span class="quiet">One robot by the name that its help page gives.</span>
			</form>
		{/if}
		{#if bench.definition?.legacy}<p class="quiet">Kept for old sites. {bench.definition.legacy}</p>{/if}
	</header>

	{#if pin !== undefined}
		<p class="note" data-testid="pin">
			Pinned to {pin === '' ? 'nothing' : `“${pin}”`}{isBroken ? ', which it no longer says' : ''}.
			{#if isBroken}<button class="link" onclick={() => setPin(value)}>Pin it as it is now</button>{/if}
			<button class="link" onclick={() => setPin(undefined)}>Take the pin off</button>
		</p>
	{/if}
	{#if bench.pictureSource !== undefined}
		<p><button class="plain-button" onclick={study}>Crop, shapes and alt text of this picture</button></p>
	{/if}
	{#if bench.weaknesses.length > 0}
		<ul class="note" aria-label="What is weak in the picture" data-testid="weak">
			{#each bench.weaknesses as weakness, at (at)}<li>{weakness}</li>{/each}
		</ul>
	{/if}

	{#each LAYERS as layer (layer)}
		<div class="bed" class:wins={winner?.layer === layer} data-layer={layer}>
			<div class="label">
				<LayerMark {layer} size={14} />
				<button class="name" title="Settings of this layer" onclick={() => settings(layer)}>{names[layer]}</button>
				<span class="scope quiet" title={scopes[layer]}>{scopes[layer]}</span>
			</div>
			<LayerField {layer} steps={stepsOf(layer)} />
			{#if found && layer === 'page'}<FoundLine step={found} />{/if}
		</div>
	{/each}

	<div class="bed" class:wins={winner?.layer === 'built-in'} data-layer="built-in">
		<div class="label">
			<LayerMark layer="built-in" size={14} />
			<span class="name">Built in</span>
			<span class="scope quiet">for any page</span>
		</div>
		<ol>
			{#each stepsOf('built-in') as step, index (index)}
				<li class:used={step.outcome.kind === 'won'}>
					{describeRule(step)}<span class="quiet">: {describeOutcome(step.outcome)}</span>
				</li>
			{:else}
				<li class="quiet">says nothing about this tag</li>
			{/each}
		</ol>
	</div>
	{#if note}<p class="note">{note}.</p>{/if}
</section>

<style>
	.robot {
		display: flex;
		flex-wrap: wrap;
		gap: 4px 8px;
		align-items: center;
		margin-top: 4px;
		font-size: 13px;
	}
	.robot input {
		flex: 1;
		min-width: 120px;
	}
	.stack {
		display: flex;
		flex-direction: column;
		gap: 8px;
	}
	header {
		padding: 2px 2px 4px;
	}
	h2 {
		font-size: 17px;
		font-weight: 500;
	}
	header p {
		max-width: 46ch;
	}
	.bed {
		border: 1px solid var(--rule);
		border-left: 4px solid var(--rule);
		border-radius: 4px;
		background: var(--sheet-sunk);
		padding: 8px 10px;
	}
	.wins {
		border-color: var(--sea);
		background: var(--sheet);
	}
	.label {
		display: flex;
		align-items: center;
		gap: 7px;
		margin-bottom: 5px;
	}
	.name {
		font-weight: 600;
		white-space: nowrap;
	}
	button.name {
		text-decoration: underline dotted;
		text-underline-offset: 3px;
	}
	button.name:hover {
		color: var(--sea);
	}
	.scope {
		margin-left: auto;
		overflow: hidden;
		font-size: 12.5px;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	ol {
		font-size: 13px;
	}
	.used {
		font-weight: 500;
	}
	.note {
		border-left: 4px solid var(--flag);
		background: var(--flag-wash);
		padding: 6px 10px;
		font-size: 13px;
	}
</style>
