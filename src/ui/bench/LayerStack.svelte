<script lang="ts">
	import { wording } from '$ui/words/en/bench';
	import Button from '$ui/parts/Button.svelte';
	import {
		describeOutcome,
		describePassedOver,
		describeRule,
		describeWithheld,
		pinnedValue,
		type TraceStep,
		purposeOf
	} from '$core';
	import { everyInWords, pagesInWords, type EditableLayer } from '$ui/parts/words';
	import { benchInView } from '$ui/workspace/context';
	import Explain from '$ui/help/Explain.svelte';
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
	// The layers are the same through all edits: only what they say is drawn again.
	const LAYERS: readonly EditableLayer[] = ['page', 'type', 'site'];
	const SIGN_WORDS = { page: 'filled', type: 'hatched', site: 'dotted' } as const;
	const names: Readonly<Record<EditableLayer, string>> = $derived({
		page: wording.thisPage,
		type: everyInWords(bench.working.type?.label ?? bench.data.page.type),
		site: wording.theWholeSite
	});
	const scopes: Readonly<Record<EditableLayer, string>> = $derived({
		page: bench.data.page.path,
		type: pagesInWords(bench.data.count.byType[bench.data.page.type] ?? 0),
		site: pagesInWords(bench.data.count.all)
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

<section class="stack flex flex-col gap-2" aria-label={wording.layersOf(bench.tag)}>
	<header class="px-0.5 pt-0.5 pb-1">
		<div class="flex items-baseline gap-1.5">
			<h2 class="font-mono text-md font-medium">{bench.tag}</h2>
			<Button
				look="link"
				class="order-last ml-auto hidden text-sm max-narrow:inline"
				onclick={() => document.querySelector('.line.chosen')?.scrollIntoView({ block: 'center' })}
				>{wording.allTags}</Button
			>
			{#if bench.definition}<Explain
					topic={{ of: 'tag', name: bench.tag, prefixes: bench.working.site.prefixes }}
					called={bench.tag}
				/>{/if}
		</div>
		<p class="max-w-[46ch] text-ink-soft">{bench.definition ? purposeOf(bench.definition) : ''}</p>
		{#if bench.definition?.kind === 'directives'}
			<form
				class="mt-1 flex flex-wrap items-center gap-x-2 gap-y-1 text-sm"
				onsubmit={(event) => {
					event.preventDefault();
					const name = robot.trim().toLowerCase();
					bench.tag = name === '' ? 'robots' : `robots:${name}`;
				}}
			>
				<label for="robot">{wording.forOne}</label>
				<input
					id="robot"
					class="min-w-30 flex-1 font-mono"
					list="robots"
					placeholder={wording.allRobots}
					bind:value={robot}
				/>
				<datalist id="robots">
					{#each robots as name (name)}<option value={name}></option>{/each}
				</datalist>
				<Button>{wording.show}</Button>
				<span class="text-ink-soft">{wording.oneRobotByTheNameThatIts}</span>
			</form>
		{/if}
		{#if bench.definition?.legacy}<p class="max-w-[46ch] text-ink-soft">
				{wording.keptForOldSites(bench.definition.legacy)}
			</p>{/if}
	</header>

	{#if pin !== undefined}
		<p class="note border-l-4 border-l-flag bg-flag-wash px-2.5 py-1.5 text-sm" data-testid="pin">
			{wording.pinnedTo(pin === '' ? wording.nothing : `“${pin}”`, isBroken ? wording.whichItNoLongerSays : '')}
			{#if isBroken}<Button look="link" onclick={() => setPin(value)}>{wording.pinItAsItIsNow}</Button>{/if}
			<Button look="link" onclick={() => setPin(undefined)}>{wording.takeThePinOff}</Button>
			<Explain topic={{ of: 'sign', name: 'pin' }} called={wording.aPin} />
		</p>
	{/if}
	{#if bench.pictureSource !== undefined}
		<p><Button onclick={study}>{wording.cropShapesAndAltTextOfThis}</Button></p>
	{/if}
	{#if bench.weaknesses.length > 0}
		<ul
			class="note border-l-4 border-l-flag bg-flag-wash px-2.5 py-1.5 text-sm"
			aria-label={wording.whatIsWeakInThePicture}
			data-testid="weak"
		>
			{#each bench.weaknesses as weakness, at (at)}<li>{weakness}</li>{/each}
		</ul>
	{/if}

	{#each LAYERS as layer (layer)}
		<div
			class="rounded-sm border-t border-r border-b border-l-4 border-rule bg-sunk px-2.5 py-2 [&.wins]:border-sea [&.wins]:bg-sheet"
			class:wins={winner?.layer === layer}
			data-layer={layer}
		>
			<div class="label mb-1.25 flex items-center gap-1.75">
				<LayerMark {layer} size={14} />
				<button
					class="name font-semibold whitespace-nowrap underline-offset-3 [text-decoration:underline_dotted] hover:text-sea"
					data-tip={wording.settingsOfThisLayer}
					onclick={() => settings(layer)}>{names[layer]}</button
				>
				<Explain topic={{ of: 'sign', name: layer }} called={wording.theSignOfThisLayer(SIGN_WORDS[layer])} />
				<span class="scope ml-auto truncate text-sm text-ink-soft" data-tip={scopes[layer]}>{scopes[layer]}</span>
			</div>
			<LayerField {layer} steps={stepsOf(layer)} />
			{#if found && layer === 'page'}<FoundLine step={found} />{/if}
			{#if bench.undone && bench.undoneAt?.layer === layer && bench.undoneAt.tag === bench.tag}
				<p class="mt-1.5 border-l-3 border-l-sea pl-1.75">
					{#await import('./UndoneLine.svelte') then { default: UndoneLine }}<UndoneLine
							undone={bench.undone}
						/>{/await}
				</p>
			{/if}
		</div>
	{/each}

	<div
		class="rounded-sm border-t border-r border-b border-l-4 border-rule bg-sunk px-2.5 py-2 [&.wins]:border-sea [&.wins]:bg-sheet"
		class:wins={winner?.layer === 'built-in'}
		data-layer="built-in"
	>
		<div class="label mb-1.25 flex items-center gap-1.75">
			<LayerMark layer="built-in" size={14} />
			<span class="name font-semibold whitespace-nowrap">{wording.builtIn}</span>
			<Explain topic={{ of: 'sign', name: 'built-in' }} called={wording.theSignOfThisLayerOpen} />
			<span class="scope ml-auto truncate text-sm text-ink-soft">{wording.forAnyPage}</span>
		</div>
		<ol class="text-sm">
			{#each stepsOf('built-in') as step, index (index)}
				<li class="[&.used]:font-medium" class:used={step.outcome.kind === 'won'}>
					{describeRule(step)}<span class="text-ink-soft">: {describeOutcome(step.outcome)}</span>
				</li>
			{:else}
				<li class="text-ink-soft">{wording.saysNothingAboutThisTag}</li>
			{/each}
		</ol>
	</div>
	{#if note}<p class="note border-l-4 border-l-flag bg-flag-wash px-2.5 py-1.5 text-sm">{note}.</p>{/if}
</section>
