<script lang="ts">
	import { wording } from '$ui/words/en/settings';
	import Toggles from '$ui/parts/Toggles.svelte';
	import { provideFinder, SettingsFinder } from './finder.svelte';
	import Group from './Group.svelte';
	import Select from '$ui/parts/select/Select.svelte';
	import Button from '$ui/parts/Button.svelte';
	import type { Action } from '$ui/workspace/actions';
	import { formatIssue, limitExtraMarkup } from '$core';
	import TextInput from '$ui/parts/TextInput.svelte';
	import { SAME } from './same';
	import { describeBase, everyInWords, type Families } from '$ui/parts/words';
	import type { EditableLayer } from '$ui/parts/words';
	import type { Panel } from '$ui/workspace/bench.svelte';
	import { benchInView } from '$ui/workspace/context';
	import type { Look } from '$ui/cards/pictureLook';
	import FieldsPanel from './FieldsPanel.svelte';
	import OwnPanel from './OwnPanel.svelte';
	import SameSwitch from './SameSwitch.svelte';
	import VersionsPanel from './VersionsPanel.svelte';
	import LayerMark from '$ui/parts/LayerMark.svelte';
	import PageSettings from './PageSettings.svelte';
	import DraftNote from '$ui/workspace/DraftNote.svelte';
	import Setting from './Setting.svelte';
	import SiteSettings from './SiteSettings.svelte';
	import TypeSettings from './types/TypeSettings.svelte';

	/** What a layer is, beside its rules: in the place of the layers of a tag, with a way back to them. */
	let {
		panel,
		back,
		act,
		shown
	}: {
		panel: Exclude<Panel, 'layers' | 'picture'>;
		back: () => void;
		act: (action: Action) => Promise<void>;
		shown: (address: string) => Look;
	} = $props();
	const bench = benchInView();
	const finder = provideFinder(new SettingsFinder());
	/** What is looked for is looked for in one panel: in the next, nothing is hidden by it. */
	// svelte-ignore state_referenced_locally
	let before = panel;
	$effect(() => {
		if (panel !== before) finder.text = '';
		before = panel;
		// What one asked the palette for; then it is one's own.
		if (bench.lookedFor === undefined) return;
		finder.text = bench.lookedFor;
		bench.lookedFor = undefined;
	});

	const PARTS = [
		['fields', wording.content],
		['own', wording.itsOwnTags],
		['versions', wording.languages],
		['page', wording.settings]
	] as const;
	const layer: EditableLayer = $derived(panel === 'type' || panel === 'site' ? panel : 'page');

	const key = $derived(JSON.stringify([bench.placeOf(layer)]));
	const owner = $derived(
		layer === 'site' ? bench.working.site : layer === 'type' ? bench.working.type : bench.working.page
	);
	/** What is begun in the fields of one page or type is not the next one's. */
	const whose = $derived(layer === 'page' ? bench.data.page.path : layer === 'type' ? bench.working.page.type : '');
	const title = $derived(
		layer === 'page'
			? wording.thisPage
			: layer === 'type'
				? everyInWords(bench.working.type?.label ?? bench.working.page.type)
				: wording.theWholeSite
	);
	const families: Families = $derived(owner?.families ?? {});
	const setFamily = (family: 'og' | 'twitter') => (value: string) => {
		const { [family]: _old, ...rest } = families;
		const all = value === '' ? rest : { ...rest, [family]: value === 'on' };
		bench.change(layer, { families: Object.keys(all).length > 0 ? all : null });
	};
	const setExtra = (where: 'before' | 'after') => (written: string) => {
		const { [where]: _old, ...rest } = owner?.extra ?? {};
		const text = written.trim();
		const all = text === '' ? rest : { ...rest, [where]: text };
		bench.change(layer, { extra: Object.keys(all).length > 0 ? all : null });
	};
	const refusedIn = (text: string) =>
		text === '' ? [] : limitExtraMarkup(text).issues.map((issue) => formatIssue(issue, text));
	const sayOf = (value: boolean | undefined) => (value === undefined ? '' : value ? 'on' : 'off');
</script>

<section
	class="settings"
	aria-label={wording.settingsOf(title.toLowerCase())}
	data-settings={layer}
	data-panel={panel}
	tabindex="-1"
>
	<Button look="link" class="back text-sm" onclick={back}
		>{wording.theLayersOf} <span class="font-mono">{bench.tag}</span></Button
	>
	<h2 class="mt-1.5 flex items-center gap-2 text-md font-semibold"><LayerMark {layer} size={15} /> {title}</h2>
	{#if layer === 'page'}
		<Toggles
			class="parts mt-1.5 mb-1 text-sm"
			label={wording.partsOfThisPage}
			value={panel}
			choices={PARTS}
			set={(part) => (bench.panel = part)}
		/>
	{/if}
	{#if panel === layer}
		<input
			class="mt-1.5 w-full"
			type="search"
			aria-label={wording.findASetting}
			placeholder={wording.findASetting}
			bind:value={finder.text}
			data-testid="find-setting"
		/>
	{/if}
	{#key whose}
		{#if panel === 'site'}<SiteSettings {act} />
		{:else if panel === 'type'}<TypeSettings {act} />
		{:else if panel === 'fields'}<FieldsPanel />
		{:else if panel === 'own'}<OwnPanel />
		{:else if panel === 'versions'}
			<VersionsPanel {shown} make={(language) => void act({ do: 'makeVersion', language })} />
		{:else}<PageSettings {act} />{/if}
	{/key}

	{#if panel === layer}
		<Group name={wording.whatSaysTheSameAsWhat}><SameSwitch {layer} /></Group>
		{#each SAME.flatMap(({ pairs }) => pairs) as [tag] (tag)}
			<DraftNote draftKey={bench.keyFor(layer, tag)} />
		{/each}
		<Group name={wording.familiesOfTagsAndExtraMarkup}>
			{#each ['og', 'twitter'] as const as family (family)}
				<Setting
					name={family === 'og' ? 'Open Graph' : wording.twitterCard}
					isSet={families[family] !== undefined}
					hint={describeBase(layer)}
				>
					<Select
						value={sayOf(families[family])}
						choices={[
							['', layer === 'site' ? wording.onAsBuiltIn : wording.asTheLayerBelowSays],
							['on', 'On'],
							['off', wording.offNoneOfTheseTags]
						]}
						set={setFamily(family)}
					/>
				</Setting>
			{/each}
			{#each ['before', 'after'] as const as where (where)}
				<Setting
					name={wording.extraHeadMarkupOurs(where)}
					isSet={(owner?.extra?.[where] ?? '') !== ''}
					hint={wording.metaLinkScriptStyleAndThe}
				>
					<TextInput class="font-mono" lines={3} value={owner?.extra?.[where] ?? ''} set={setExtra(where)} />
				</Setting>
				{#each refusedIn(owner?.extra?.[where] ?? '') as one (one)}
					<p class="mt-0.75 border-l-3 border-l-flag pl-1.75 text-sm">{one}</p>
				{/each}
			{/each}
		</Group>

		<!-- Where the hand is: however far down, what it reaches and Keep are in view. -->
		{#if bench.drafts.all[key]}
			<div class="sticky -bottom-3.5 -mx-3.5 mt-3 bg-ground px-3.5 pb-3.5" data-testid="settings-draft">
				<DraftNote draftKey={key} />
			</div>
		{/if}
	{/if}
</section>
