<script lang="ts">
	import { wording } from '$ui/words/en/share';
	import { counted } from '$ui/words/speaking';
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
		label: wording.ofTheSharePicture(PART_NAMES[chosen]),
		describedBy: 'share-told',
		placeholder: wording.nothingOffersWhatFits,
		variables: () => bench.variablesFor('type'),
		show: bench.show,
		changed: (text: string) => setPart(chosen, { template: text }),
		keep: () => void bench.drafts.keep(keyOfSettings(typePlace)),
		takeBack: () => false
	});

	let composing = $state.raw<Work | undefined>();
	let told = $state('');
	async function compose() {
		const work = (composing = works.begin(bench.data.site.name, wording.drawingSharePictures));
		work.progress(0, count);
		told = '';
		const answer = await composeAll(bench.data.site.name, bench.working.page.type, work.signal, work.progress);
		composing = undefined;
		told = isRefused(answer) ? answer.refused : wording.drawnNowHadNotChangedTheNext(answer.drawn, answer.kept);
		works.end(work, told, isRefused(answer));
	}
	const number = (event: Event & { currentTarget: HTMLInputElement }) => Number(event.currentTarget.value) || 0;
	const ALIGN = { start: wording.atItsStart, middle: wording.inTheMiddle, end: wording.atItsEnd };
	const STAND = { top: wording.atTheTop, middle: wording.inTheMiddle, bottom: wording.atTheFoot };
</script>

<section class="parts" aria-label={wording.theLayoutOfSharePictures}>
	<Button look="link" class="back text-sm" onclick={back}
		>{wording.theLayersOf} <span class="font-mono">{bench.tag}</span></Button
	>
	<h2 class="mx-0 my-1.5 text-md font-semibold">{wording.theSharePictureOfEvery(label)}</h2>
	{#if layout}
		{#if !bench.working.asksForShare}
			<p class="note mb-2 border-l-4 border-l-flag bg-flag-wash px-2.5 py-1.5 text-sm">
				{wording.noRuleAsksForItYetCards}
				<Button look="link" onclick={() => bench.useShare()}>{wording.putItFirstForEvery(label)}</Button>
			</p>
		{/if}
		<div class="mb-1.5 flex flex-wrap gap-3 text-sm" role="group" aria-label={wording.itsParts}>
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
					? wording.withThePagesPicture
					: chosen === 'logo'
						? wording.withTheSitesLogo
						: wording.withASecondLine}</label
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
					>{wording.size}
					<input
						class="w-16.5"
						type="number"
						min="10"
						max="300"
						value={written.size}
						onchange={(event) => setPart(chosen, { size: Math.min(300, Math.max(10, number(event))) })}
					/></label
				>
				<label class="flex items-center gap-1.25"
					>{wording.downTo}
					<input
						class="w-16.5"
						type="number"
						min="8"
						max="300"
						value={written.least}
						onchange={(event) => setPart(chosen, { least: Math.min(300, Math.max(8, number(event))) })}
					/> px</label
				>
				<label class="flex items-center gap-1.25"
					>{wording.weight}
					<input
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
					aria-label={wording.type}
					value={written.font}
					choices={[
						['title', wording.inTheTitleType],
						['text', wording.inTheTextType]
					]}
					set={(font) => setPart(chosen, { font })}
				/>
				<Select
					aria-label={wording.linesBegin}
					value={written.align}
					choices={Object.entries(ALIGN).map(([value, name]) => [value, `lines ${name}`] as const)}
					set={(align) => setPart(chosen, { align })}
				/>
				<Select
					aria-label={wording.itStands}
					value={written.stand}
					choices={Object.entries(STAND).map(([value, name]) => [value, `stands ${name}`] as const)}
					set={(stand) => setPart(chosen, { stand })}
				/>
			</div>
			<ColourChoice
				name={wording.colourOfItsWords}
				colour={written.colour}
				{look}
				set={(colour) => setPart(chosen, { colour })}
			/>
		{/if}
		{#if chosen === 'picture' && layout.picture}
			<ColourChoice
				name={wording.tintOverIt}
				colour={layout.picture.tint}
				{look}
				set={(tint) => setPart('picture', { tint })}
			/>
			<label class="row mt-1.5 flex flex-wrap items-center gap-x-3 gap-y-1.25 text-sm"
				>{wording.howStrong}
				<input
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

		<h3 class="mx-0 mt-3.5 mb-0.75 border-t border-t-rule pt-1.75 text-sm font-semibold">{wording.background}</h3>
		<Select
			aria-label={wording.background}
			value={layout.background.kind}
			choices={[
				['colour', wording.oneColour],
				['gradient', wording.fromOneColourToAnother]
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
				name={wording.background}
				colour={layout.background.colour}
				{look}
				set={(colour) => set({ ...layout, background: { kind: 'colour', colour } })}
			/>
		{:else}
			{@const ground = layout.background}
			<ColourChoice
				name={wording.from}
				colour={ground.from}
				{look}
				set={(from) => set({ ...layout, background: { ...ground, from } })}
			/>
			<ColourChoice
				name={wording.to}
				colour={ground.to}
				{look}
				set={(to) => set({ ...layout, background: { ...ground, to } })}
			/>
			<label class="row mt-1.5 flex flex-wrap items-center gap-x-3 gap-y-1.25 text-sm"
				>{wording.angle}
				<input
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
			/>
			{wording.withAFrame}</label
		>
		{#if layout.frame}
			{@const frame = layout.frame}
			<ColourChoice
				name={wording.frame}
				colour={frame.colour}
				{look}
				set={(colour) => set({ ...layout, frame: { ...frame, colour } })}
			/>
			<div class="row mt-1.5 flex flex-wrap items-center gap-x-3 gap-y-1.25 text-sm">
				<label class="flex items-center gap-1.25"
					>{wording.width}
					<input
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
					>{wording.inset}
					<input
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
			{wording.theSitesColoursAndType}
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
			{#each [['titleFont', wording.titles], ['textFont', wording.otherWords]] as const as [which, name] (which)}
				<label class="flex items-center gap-1.25"
					>{name}
					<Select value={look[which]} choices={FONTS} set={(font: Font) => setLook({ [which]: font })} /></label
				>
			{/each}
		</div>
	{:else}
		<p class="text-ink-soft">
			{wording.aPictureDrawnFromEachPages}
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
				<Button disabled={drafts.length > 0} onclick={() => void compose()}>{wording.drawAllNow(counted(count))}</Button
				>
				{#if told}<p role="status">{told}</p>
				{:else}<p class="text-ink-soft">
						{drafts.length > 0 ? wording.keepWhatYouChangedFirst : wording.thoseThatNobodyDrewBeforeA}
					</p>{/if}
				<Button look="link" onclick={() => set(null)}>{wording.stopMakingSharePicturesFor}</Button>
			{/if}
		</div>
	{/if}
</section>
