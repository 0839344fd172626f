<script lang="ts" module>
	import Disclosure from '$ui/parts/shown/Disclosure.svelte';
	import Select from '$ui/parts/select/Select.svelte';
	/** What is wrong only because it is not written to its end. */
	const BEGUN: ReadonlySet<string> = new Set([
		'template/unclosed-placeholder',
		'template/unclosed-optional',
		'template/unclosed-string',
		'template/empty-placeholder',
		'template/unexpected'
	]);
</script>

<script lang="ts">
	import { wording } from '$ui/words/en/fields';
	import Button from '$ui/parts/Button.svelte';
	import { untrack } from 'svelte';
	import {
		BUILT_IN_PICTURES,
		describeOutcome,
		findTag,
		TAG_NAMES,
		type Proposal,
		type RuleBody,
		type TraceStep
	} from '$core';
	import type { EditableLayer } from '$ui/parts/words';
	import { benchInView } from '$ui/workspace/context';
	import DraftNote from '$ui/workspace/DraftNote.svelte';
	import { languageName } from '$ui/parts/words';
	import ShapeChoice from '$ui/pictures/ShapeChoice.svelte';
	import TemplateField from './TemplateField.svelte';
	import YieldLine from './YieldLine.svelte';

	/**
	 * What one layer says about the chosen tag, changed in place. Enter keeps, Escape takes back. What only some tags need
	 * comes with the first of those.
	 */
	let { layer, steps }: { layer: EditableLayer; steps: readonly TraceStep[] } = $props();
	const bench = benchInView();

	const rule = $derived(bench.ruleAt(layer));
	const body = $derived(bench.bodyAt(layer));
	const draft = $derived(bench.draftAt(layer));
	const text = $derived(bench.textAt(layer));
	/** What is written, as far as it is told in words: see the bench. */
	const told = <T,>(what: () => T): T => {
		void [bench.working.told, bench.tag, bench.languages[layer]];
		return untrack(what);
	};
	// One by one: a layer that says what it said is not checked again.
	const toldText = $derived(told(() => text));
	const toldBody = $derived(told(() => body));
	const issues = $derived(bench.issuesOf(layer, toldBody));
	const errors = $derived(issues.filter((issue) => issue.severity === 'error'));
	/** Something is being chosen from the list: what is begun is no mistake yet. */
	let isChoosing = $state(false);
	const shown = $derived(isChoosing ? issues.filter(({ code }) => !BEGUN.has(code)) : issues);
	const step = $derived(steps.find((one) => one.outcome.kind !== 'not-reached') ?? steps[0]);
	const isPicture = $derived(bench.definition?.kind === 'picture');
	const pieces = $derived(toldText === '' ? [] : bench.templateParts(toldText));
	/** The template is told in words; worked out only where someone asks. */
	let asksWords = $state(false);
	const inWords = $derived(asksWords && errors.length === 0 ? bench.explain(layer, toldText) : undefined);
	/** The hard pages, or the signs of the language, over the room. */
	let tries = $state(false);
	let asksSigns = $state(false);
	const mends = $derived(
		shown.map((issue) => (form === 'template' ? bench.mendOf(layer, toldText, issue) : undefined))
	);
	/** A first template for a type that says nothing of its titles or descriptions. */
	const mayPropose = $derived(layer === 'type' && body === null && /(?:^|:)(?:title|description)$/.test(bench.tag));
	let proposed = $state.raw<Proposal | string | undefined>();
	async function proposeFirst() {
		proposed = wording.lookingAtTheRecords;
		const found = await bench.proposal();
		proposed = found;
		if (typeof found !== 'string') bench.write(layer, found.template);
	}
	const id = $derived(`field-${layer}`);
	/** Tags that the chosen one can say the same as. */
	const borrowable = $derived(
		TAG_NAMES.filter((name) => name !== bench.tag && findTag(name)?.kind === bench.definition?.kind)
	);
	/** Those that make sense for it: its twin and the tags that say the same thing to others. The rest is asked for. */
	const sensible = $derived.by(() => {
		const ends = (name: string) => name.split(':').at(-1) as string;
		const from = body?.kind === 'borrow' ? body.from : undefined;
		const close = borrowable.filter(
			(name) =>
				name === bench.definition?.twin || name === from || ends(name) === ends(bench.tag) || FIRST.includes(name)
		);
		return close.length > 0 ? close : borrowable;
	});
	const rest = $derived(borrowable.filter((name) => !sensible.includes(name)));
	const isRobots = $derived(bench.definition?.kind === 'directives');
	/** A text with variables in it is written as a template. */
	const isTemplate = (text: string) => /[{}[\]\\]/.test(text);
	const spoken = $derived(bench.languages[layer] ?? rule?.language ?? '');
	const rules = $derived(bench.rulesFor(layer));
	const has = (tag: string) => rules.some((one) => (one.language ?? '') === tag);
	/** The languages that this layer can speak in: any, the site's, and those it does already. */
	const languages = $derived([
		...new Set([
			'',
			...(bench.working.site.languages.length > 1 ? bench.working.site.languages : []),
			...rules.map((one) => one.language ?? '')
		])
	]);
	const others = $derived(
		rules
			.filter((one) => (one.language ?? '') !== spoken)
			.map((one) => (one.language ? wording.inOne(languageName(one.language)) : wording.inAnyLanguage))
	);
	const choices = $derived(
		bench.definition?.choices && !bench.definition.open && bench.definition.choices.length < 30
			? bench.definition.choices
			: undefined
	);

	const FIRST = ['title', 'description', 'og:title', 'og:description', 'og:image'];
	type Form = 'nothing' | 'leaveOut' | 'pictures' | RuleBody['kind'];
	/** Picture sources that are looked at and say nothing yet: nothing is written before one is set. */
	let looksAt = $state('');
	const isLooking = $derived(body === null && looksAt === bench.tag && isPicture);
	const form: Form = $derived(body?.kind ?? (isLooking ? 'pictures' : 'nothing'));
	const usual = $derived<Extract<RuleBody, { kind: 'pictures' }>>({
		...BUILT_IN_PICTURES,
		kind: 'pictures',
		...(bench.shapesInForce && { shapes: bench.shapesInForce })
	});

	function choose(chosen: Form) {
		looksAt = '';
		switch (chosen) {
			case 'nothing':
				return bench.propose(layer, null);
			case 'leaveOut':
				return bench.propose(layer, { kind: 'leaveOut' });
			case 'borrow':
				return bench.propose(layer, { kind: 'borrow', from: bench.definition?.twin ?? borrowable[0] ?? 'title' });
			case 'pictures':
				// Over another rule it is an edit at once; over nothing it is only looked at.
				if (body) return bench.propose(layer, usual);
				looksAt = bench.tag;
				return;
			case 'template':
				return bench.write(layer, text || (isPicture ? '{page.picture}' : '{page.title}'));
		}
	}

	const around = $derived({
		label: wording.at(bench.tag, layer),
		describedBy: `${id}-told`,
		placeholder: wording.nothingSetHereOffersWhatFits,
		variables: () => bench.variablesFor(layer),
		show: bench.show,
		changed: (written: string) => bench.write(layer, written),
		choosing: (is: boolean) => (isChoosing = is),
		keep: () => void bench.keepAt(layer),
		takeBack: () => {
			if (!bench.draftAt(layer)) return false;
			bench.discardAt(layer);
			return true;
		}
	});
</script>

<div class="kind mb-1 flex items-center gap-2.5 text-sm">
	<Select
		look="bare"
		aria-label={wording.howSays(layer, bench.tag)}
		value={form}
		choices={[
			['nothing', wording.inherits],
			['template', wording.aTemplate],
			...(borrowable.length > 0 ? [['borrow', wording.theSameAs] as const] : []),
			...(isPicture ? [['pictures', wording.pictureSources] as const] : []),
			['leaveOut', wording.leaveItOut]
		]}
		set={choose}
	/>
	{#if languages.length > 1}
		<Select
			look="bare"
			aria-label={wording.languageThatSaysIn(layer, bench.tag)}
			data-tip={others.length > 0 ? wording.alsoSaidHere(others.join(', ')) : wording.forPagesInWhichLanguage}
			value={spoken}
			choices={languages.map(
				(tag) =>
					[
						tag,
						`${tag === '' ? wording.inAnyLanguage : wording.inOne(languageName(tag))}${has(tag) ? ' ·' : ''}`
					] as const
			)}
			set={(tag) => (bench.languages[layer] = tag)}
		/>
	{/if}
	<span class="more ml-auto flex flex-wrap justify-end gap-x-2.5 gap-y-0.5">
		{#if mayPropose}<Button look="link" onclick={proposeFirst}>{wording.proposeOne}</Button>{/if}
		{#if form === 'template' || form === 'nothing'}
			<Button
				look="link"
				aria-label={wording.signsAndFilters}
				data-tip={wording.signsAndFilters}
				onclick={() => (asksSigns = true)}>?</Button
			>
		{/if}
		{#if rule && !draft}
			<Button look="link" onclick={() => bench.propose(layer, null)}>{wording.setBack}</Button>
		{/if}
	</span>
</div>

{#if form === 'borrow' && body?.kind === 'borrow'}
	<Select
		class="w-full font-mono"
		aria-label={wording.atTheSameAs(bench.tag, layer)}
		value={body.from}
		choices={[...sensible, ...rest]}
		set={(from) => bench.propose(layer, { ...body, from })}
	/>
	{#if isPicture}
		<ShapeChoice
			shapes={body.shapes ?? []}
			set={(shapes) => bench.propose(layer, { kind: 'borrow', from: body.from, ...(shapes.length > 0 && { shapes }) })}
		/>
	{/if}
{:else if form === 'pictures'}
	{#await import('$ui/pictures/PictureSources.svelte') then { default: PictureSources }}
		<PictureSources {layer} body={body?.kind === 'pictures' ? body : usual} />
	{/await}
{:else if form === 'leaveOut'}
	<p class="text-ink-soft">{wording.noSuchTagOn(layer === 'page' ? wording.thisPage : wording.thesePages)}</p>
{:else if isRobots && !isTemplate(text)}
	{#await import('./RobotsChoice.svelte') then { default: RobotsChoice }}
		<RobotsChoice {text} label={wording.at(bench.tag, layer)} set={(written) => bench.write(layer, written)} />
	{/await}
{:else if choices}
	<Select
		class="w-full font-mono"
		aria-label={wording.at(bench.tag, layer)}
		value={text}
		choices={[['', wording.nothingSetHere], ...choices, ...(text && !choices.includes(text) ? [text] : [])]}
		set={(choice) => bench.write(layer, choice)}
	/>
{:else}
	<TemplateField
		{text}
		{pieces}
		errors={shown.filter(({ severity }) => severity === 'error')}
		{around}
		kept={bench.drafts.keptEdits}
	/>
{/if}

{#if isPicture && (form === 'nothing' || form === 'pictures')}
	{#await import('$ui/pictures/PictureDrop.svelte') then { default: PictureDrop }}<PictureDrop {layer} />{/await}
{/if}

<div id="{id}-told" class="told text-sm" aria-live="polite">
	{#if pieces.some((piece) => piece.kind !== 'text')}<YieldLine {pieces} />{/if}
	{#if form === 'template' && toldText.includes('{')}
		<div class="flex items-baseline gap-3">
			<Disclosure class="words mt-1 text-sm text-ink-soft" bind:open={asksWords} label={wording.inWords}>
				<p class="text-ink-soft">{inWords ?? wording.itCannotBeReadYet}</p>
			</Disclosure>
			{#if errors.length === 0}<Button look="link" class="flex-none text-sm" onclick={() => (tries = true)}
					>{wording.onHardPages}</Button
				>{/if}
		</div>
	{/if}
	{#each shown as issue, at (at)}
		{@const mend = mends[at]}
		<p
			class="issue mt-1 border-l-3 border-l-gone pl-1.75 [&.warning]:border-dotted"
			class:warning={issue.severity === 'warning'}
		>
			{issue.message}
			{#if mend}<button
					class="cursor-pointer border-0 bg-transparent p-0 text-sea underline underline-offset-2"
					onclick={() => bench.write(layer, mend.text)}>{mend.says}</button
				>{/if}
		</p>
	{/each}
	{#if typeof proposed === 'string'}
		<p class="text-ink-soft" role="status">{proposed}</p>
	{:else if proposed && body?.kind === 'template' && body.template === proposed.template}
		<p class="text-ink-soft">{wording.proposedFromTheRecordsOfThis(proposed.reasons.join('; '))}</p>
	{/if}
	{#if errors.length === 0}<DraftNote draftKey={bench.keyAt(layer)} />{/if}
	{#if draft && errors.length > 0}
		<p class="text-ink-soft">
			{wording.notKeptWhileItHasAnError}
			<Button look="link" onclick={() => bench.discardAt(layer)}>{wording.takeBack}</Button>
		</p>
	{/if}
	{#if !draft && step && rule}
		<p class="mt-1 text-ink-soft">
			{describeOutcome(step.outcome)}{rule.language ? wording.forOne(rule.language) : ''}
		</p>
	{/if}
</div>

{#if tries}
	{#await import('./TryPanel.svelte') then { default: TryPanel }}
		<TryPanel bind:open={tries} {layer} template={text} />
	{/await}
{/if}
{#if asksSigns}
	{#await import('./SignsSheet.svelte') then { default: SignsSheet }}
		<SignsSheet bind:open={asksSigns} template={text} />
	{/await}
{/if}
