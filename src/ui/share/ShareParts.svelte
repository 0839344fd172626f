<script lang="ts">
	import { works, type Work } from '$ui/works/works.svelte';
	import WorkLine from '$ui/works/WorkLine.svelte';
	import Select from '$ui/parts/select/Select.svelte';
	import Button from '$ui/parts/Button.svelte';
	import {
		describeFinding,
		findInLayout,
		FONTS,
		STARTING_LAYOUTS,
		wholeLook,
		type Font,
		type Look,
		type ShareLayout
	} from '$core';
	import { compose as composeAll, isRefused } from '$ui/client';
	import { benchInView } from '$ui/workspace/context';
	import BoxFields from './BoxFields.svelte';
	import ColourChoice from './ColourChoice.svelte';
	import { keyOfSettings } from '$ui/workspace/edits';
	import DraftNote from '$ui/workspace/DraftNote.svelte';
	import { PART_NAMES, PARTS, withPart, type Part } from './shareLayout';
	import TemplateField from '$ui/fields/TemplateField.svelte';

	/** The layout of a type's share pictures in numbers, and the drawing of them all. */
	let { chosen = $bindable(), back }: { chosen: Part; back: () => void } = $props();
	const bench = benchInView();

	const layout = $derived(bench.working.type?.layout);
	const look = $derived(wholeLook(bench.working.site.look));
	const label = $derived((bench.working.type?.label ?? bench.working.page.type).toLowerCase());
	const count = $derived(bench.data.count.byType[bench.working.page.type] ?? 0);
	const set = (next: ShareLayout | null) => bench.change('type', { layout: next });
	const setPart = (part: Part, changes: object) => layout && set(withPart(layout, part, changes as never));
	const setLook = (changes: Partial<Look>) =>
		bench.change('site', { look: { ...bench.working.site.look, ...changes } });
	const starting = STARTING_LAYOUTS[0]!.layout;

	function toggle(part: Exclude<Part, 'title'>) {
		if (!layout) return;
		const { [part]: there, ...rest } = layout;
		set(there ? rest : { ...layout, [part]: starting[part] });
	}
	const written = $derived(chosen === 'title' || chosen === 'line' ? layout?.[chosen] : undefined);
	const issues = $derived(
		layout
			? findInLayout(
					layout,
					{ of: 'type', name: bench.working.page.type },
					{
						site: bench.working.site,
						fields: bench.working.type?.fields ?? []
					}
				).flatMap((found) =>
					'part' in found.data && found.data.part?.startsWith(chosen)
						? [{ issue: found.data.issue, message: describeFinding(found) }]
						: []
				)
			: []
	);
	const typePlace = $derived(bench.placeOf('type'));
	/** What was changed for more than this page and is not kept yet. */
	const drafts = $derived(
		Object.entries(bench.drafts.all)
			.filter(([, { edit }]) => edit.place.layer === 'type' || edit.place.layer === 'site')
			.map(([key]) => key)
	);
	const around = $derived({
		label: `${PART_NAMES[chosen]} of the share picture`,
		describedBy: 'share-told',
		placeholder: 'Nothing. { offers what fits',
		variables: () => bench.variablesFor('type'),
		show: bench.show,
		changed: (text: string) => setPart(chosen, { template: text }),
		keep: () => void bench.drafts.keep(keyOfSettings(typePlace)),
		takeBack: () => false
	});

	let composing = $state.raw<Work | undefined>();
	let told = $state('');
	async function compose() {
		const work = (composing = works.begin(bench.data.site.name, 'Drawing share pictures'));
		work.progress(0, count);
		told = '';
		const answer = await composeAll(bench.data.site.name, bench.working.page.type, work.signal, work.progress);
		composing = undefined;
		told = isRefused(answer)
			? answer.refused
			: `${answer.drawn} drawn now, ${answer.kept} had not changed. The next release names them.`;
		works.end(work, told, isRefused(answer));
	}
	const number = (event: Event & { currentTarget: HTMLInputElement }) => Number(event.currentTarget.value) || 0;
	const ALIGN = { start: 'at its start', middle: 'in the middle', end: 'at its end' };
	const STAND = { top: 'at the top', middle: 'in the middle', bottom: 'at the foot' };
</script>

<section class="parts" aria-label="The layout of share pictures">
	<Button look="link" class="back text-sm" onclick={back}
		>← The layers of <span class="font-mono">{bench.tag}</span></Button
	>
	<h2 class="mx-0 my-1.5 text-md font-semibold">The share picture of every {label}</h2>
	{#if layout}
		{#if !bench.working.asksForShare}
			<p class="note mb-2 border-l-4 border-l-flag bg-flag-wash px-2.5 py-1.5 text-sm">
				No rule asks for it yet: cards show other pictures.
				<Button look="link" onclick={() => bench.useShare()}>Put it first for every {label}</Button>
			</p>
		{/if}
		<div class="mb-1.5 flex flex-wrap gap-3 text-sm" role="group" aria-label="Its parts">
			{#each PARTS as part (part)}
				<button
					class="border-b-2 border-b-transparent aria-pressed:border-b-sea aria-pressed:font-semibold [&.off]:text-ink-soft [&.off]:line-through [&.off]:decoration-1"
					aria-pressed={chosen === part}
					class:off={!layout[part]}
					onclick={() => (chosen = part)}>{PART_NAMES[part]}</button
				>
			{/each}
		</div>

		{#if chosen !== 'title'}
			<label class="row mt-1.5 flex flex-wrap items-center gap-x-3 gap-y-1.25 text-sm"
				><input
					type="checkbox"
					checked={layout[chosen] !== undefined}
					onchange={() => toggle(chosen as Exclude<Part, 'title'>)}
				/>
				{chosen === 'picture'
					? 'With the page’s picture'
					: chosen === 'logo'
						? 'With the site’s logo'
						: 'With a second line'}</label
			>
		{/if}
		{#if written}
			<TemplateField
				text={written.template}
				pieces={bench.templateParts(written.template)}
				errors={issues.map(({ issue }) => issue)}
				kept={bench.drafts.keptEdits}
				{around}
			/>
			<div id="share-told">
				{#each issues as issue, at (at)}<p class="issue mt-1 border-l-3 border-l-gone pl-1.75 text-sm">
						{issue.message}
					</p>{/each}
			</div>
			<div class="row mt-1.5 flex flex-wrap items-center gap-x-3 gap-y-1.25 text-sm">
				<label class="flex items-center gap-1.25"
					>Size <input
						class="w-16.5"
						type="number"
						min="10"
						max="300"
						value={written.size}
						onchange={(event) => setPart(chosen, { size: Math.min(300, Math.max(10, number(event))) })}
					/></label
				>
				<label class="flex items-center gap-1.25"
					>down to <input
						class="w-16.5"
						type="number"
						min="8"
						max="300"
						value={written.least}
						onchange={(event) => setPart(chosen, { least: Math.min(300, Math.max(8, number(event))) })}
					/> px</label
				>
				<label class="flex items-center gap-1.25"
					>Weight <input
						class="w-16.5"
						type="number"
						min="100"
						max="900"
						step="50"
						value={written.weight}
						onchange={(event) => setPart(chosen, { weight: Math.min(900, Math.max(100, Math.round(number(event)))) })}
					/></label
				>
			</div>
			<div class="row mt-1.5 flex flex-wrap items-center gap-x-3 gap-y-1.25 text-sm">
				<Select
					aria-label="Type"
					value={written.font}
					choices={[
						['title', 'In the title type'],
						['text', 'In the text type']
					]}
					set={(font) => setPart(chosen, { font })}
				/>
				<Select
					aria-label="Lines begin"
					value={written.align}
					choices={Object.entries(ALIGN).map(([value, name]) => [value, `lines ${name}`] as const)}
					set={(align) => setPart(chosen, { align })}
				/>
				<Select
					aria-label="It stands"
					value={written.stand}
					choices={Object.entries(STAND).map(([value, name]) => [value, `stands ${name}`] as const)}
					set={(stand) => setPart(chosen, { stand })}
				/>
			</div>
			<ColourChoice
				name="Colour of its words"
				colour={written.colour}
				{look}
				set={(colour) => setPart(chosen, { colour })}
			/>
		{/if}
		{#if chosen === 'picture' && layout.picture}
			<ColourChoice
				name="Tint over it"
				colour={layout.picture.tint}
				{look}
				set={(tint) => setPart('picture', { tint })}
			/>
			<label class="row mt-1.5 flex flex-wrap items-center gap-x-3 gap-y-1.25 text-sm"
				>How strong <input
					class="min-w-15 flex-1 p-0"
					type="range"
					min="0"
					max="1"
					step="0.05"
					value={layout.picture.strength}
					oninput={(event) => setPart('picture', { strength: number(event) })}
				/>
				{Math.round(layout.picture.strength * 100)} %</label
			>
		{/if}
		{#if layout[chosen]}
			<BoxFields box={layout[chosen]!} set={(box) => setPart(chosen, box)} />
		{/if}

		<h3 class="mx-0 mt-3.5 mb-0.75 border-t border-t-rule pt-1.75 text-sm font-semibold">Background</h3>
		<Select
			aria-label="Background"
			value={layout.background.kind}
			choices={[
				['colour', 'One colour'],
				['gradient', 'From one colour to another']
			]}
			set={(kind) =>
				set({
					...layout,
					background:
						kind === 'colour'
							? { kind: 'colour', colour: 'paper' }
							: { kind: 'gradient', from: 'ink', to: 'accent', angle: 20 }
				})}
		/>
		{#if layout.background.kind === 'colour'}
			<ColourChoice
				name="Background"
				colour={layout.background.colour}
				{look}
				set={(colour) => set({ ...layout, background: { kind: 'colour', colour } })}
			/>
		{:else}
			{@const ground = layout.background}
			<ColourChoice
				name="From"
				colour={ground.from}
				{look}
				set={(from) => set({ ...layout, background: { ...ground, from } })}
			/>
			<ColourChoice
				name="To"
				colour={ground.to}
				{look}
				set={(to) => set({ ...layout, background: { ...ground, to } })}
			/>
			<label class="row mt-1.5 flex flex-wrap items-center gap-x-3 gap-y-1.25 text-sm"
				>Angle <input
					class="w-16.5"
					type="number"
					min="0"
					max="360"
					value={ground.angle}
					onchange={(event) =>
						set({ ...layout, background: { ...ground, angle: Math.min(360, Math.max(0, number(event))) } })}
				/> °</label
			>
		{/if}
		<label class="row mt-1.5 flex flex-wrap items-center gap-x-3 gap-y-1.25 text-sm"
			><input
				type="checkbox"
				checked={layout.frame !== undefined}
				onchange={() => {
					const { frame, ...rest } = layout;
					set(frame ? rest : { ...layout, frame: { colour: 'accent', width: 6, inset: 30 } });
				}}
			/> With a frame</label
		>
		{#if layout.frame}
			{@const frame = layout.frame}
			<ColourChoice
				name="Frame"
				colour={frame.colour}
				{look}
				set={(colour) => set({ ...layout, frame: { ...frame, colour } })}
			/>
			<div class="row mt-1.5 flex flex-wrap items-center gap-x-3 gap-y-1.25 text-sm">
				<label class="flex items-center gap-1.25"
					>Width <input
						class="w-16.5"
						type="number"
						min="0"
						max="200"
						value={frame.width}
						onchange={(event) =>
							set({ ...layout, frame: { ...frame, width: Math.min(200, Math.max(0, number(event))) } })}
					/></label
				>
				<label class="flex items-center gap-1.25"
					>Inset <input
						class="w-16.5"
						type="number"
						min="0"
						max="300"
						value={frame.inset}
						onchange={(event) =>
							set({ ...layout, frame: { ...frame, inset: Math.min(300, Math.max(0, number(event))) } })}
					/> px</label
				>
			</div>
		{/if}

		<h3 class="mx-0 mt-3.5 mb-0.75 border-t border-t-rule pt-1.75 text-sm font-semibold">
			The site’s colours and type
		</h3>
		<div class="row mt-1.5 flex flex-wrap items-center gap-x-3 gap-y-1.25 text-sm">
			{#each ['paper', 'ink', 'accent'] as const as use (use)}
				<label class="flex items-center gap-1.25"
					>{use}
					<input
						class="h-6 w-8.5 p-px"
						type="color"
						value={look[use]}
						onchange={(event) => setLook({ [use]: event.currentTarget.value })}
					/></label
				>
			{/each}
		</div>
		<div class="row mt-1.5 flex flex-wrap items-center gap-x-3 gap-y-1.25 text-sm">
			{#each [['titleFont', 'Titles'], ['textFont', 'Other words']] as const as [which, name] (which)}
				<label class="flex items-center gap-1.25"
					>{name}
					<Select value={look[which]} choices={FONTS} set={(font: Font) => setLook({ [which]: font })} /></label
				>
			{/each}
		</div>
	{:else}
		<p class="text-ink-soft">
			A picture drawn from each page’s own words, in the site’s colours and type. Choose how to begin at the right.
		</p>
	{/if}

	{#each drafts as key (key)}<DraftNote draftKey={key} />{/each}

	{#if layout}
		<div
			class="all mt-3 flex flex-col items-start gap-1.25 border-t border-t-rule pt-2.25 text-sm"
			data-testid="compose"
		>
			{#if composing}
				<WorkLine work={composing} />
			{:else}
				<Button disabled={drafts.length > 0} onclick={() => void compose()}
					>Draw all {count.toLocaleString('en')} now</Button
				>
				{#if told}<p role="status">{told}</p>
				{:else}<p class="text-ink-soft">
						{drafts.length > 0
							? 'Keep what you changed first.'
							: 'Those that nobody drew before a release are drawn when they are first asked for.'}
					</p>{/if}
				<Button look="link" onclick={() => set(null)}>Stop making share pictures for this type</Button>
			{/if}
		</div>
	{/if}
</section>
