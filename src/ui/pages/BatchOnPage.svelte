<script lang="ts">
	import { wording } from '$ui/words/en/pages';
	import { untrack } from 'svelte';
	import Button from '$ui/parts/Button.svelte';
	import type { PageBench } from '$server/web/benchData';
	import TemplateField from '$ui/fields/TemplateField.svelte';
	import YieldLine from '$ui/fields/YieldLine.svelte';
	import Select from '$ui/parts/select/Select.svelte';
	import FieldInput from '$ui/settings/FieldInput.svelte';
	import { fieldsOfPage } from '$ui/settings/fieldValues';
	import { Bench } from '$ui/workspace/bench.svelte';
	import { setBench } from '$ui/workspace/context';
	import type { WrittenField } from './words';

	/** The same, once the page is known. */
	let {
		site,
		data,
		what,
		tag,
		template,
		setTemplate,
		field,
		setField
	}: {
		site: string;
		data: PageBench;
		what: 'template' | 'field';
		tag: string;
		template: string;
		setTemplate: (template: string) => void;
		field: WrittenField;
		setField: (field: WrittenField) => void;
	} = $props();

	// It is written on, and kept nowhere: the change of many is.
	const bench = untrack(() => new Bench(site, data));
	setBench(bench);
	$effect.pre(() => void (bench.tag = tag));

	/** What is begun is not called wrong while one chooses. */
	let isChoosing = $state(false);
	const issues = $derived(template === '' || isChoosing ? [] : bench.issuesOf('page', { kind: 'template', template }));
	const pieces = $derived(template === '' ? [] : bench.templateParts(template));
	const around = $derived({
		label: wording.theTemplateOf(tag),
		describedBy: 'batch-told',
		placeholder: '{page.title} {separator} {site.name}',
		variables: () => bench.variablesFor('page'),
		show: bench.show,
		changed: setTemplate,
		choosing: (is: boolean) => (isChoosing = is),
		keep: () => undefined,
		takeBack: () => false
	});

	const fields = $derived(fieldsOfPage(bench.working.type, data.page).map(({ field }) => field));
	/** What is written stays though another page is the first of those that are meant. */
	const shown = $derived(fields.find(({ name }) => name === field.name) ?? { name: field.name, kind: 'text' as const });
</script>

{#if what === 'template'}
	<div class="grid gap-0.5">
		<span class="font-semibold">{wording.template}</span>
		<TemplateField
			text={template}
			{pieces}
			errors={issues.filter(({ severity }) => severity === 'error')}
			{around}
			kept={0}
		/>
		<div id="batch-told" class="text-ink-soft" aria-live="polite">
			{#if pieces.length > 0}{wording.on} <span class="font-mono">{data.page.path}</span>: <YieldLine {pieces} />{/if}
			{#each issues as issue, at (at)}<p class="text-gone">{issue.message}</p>{/each}
		</div>
	</div>
{:else}
	<label class="grid gap-0.5 font-semibold"
		>{wording.field}
		<Select
			class="w-full font-normal"
			value={shown.name}
			choices={fields.map((one) => [one.name, one.label ?? one.name] as const)}
			set={(name) => setField({ name, value: undefined })}
		/></label
	>
	{#key shown.name}<FieldInput
			field={shown}
			value={field.value ?? undefined}
			set={(value) => setField({ name: shown.name, value })}
		/>{/key}
	<p class="text-ink-soft">
		{#if field.value === null}{wording.itIsEmptiedOnAllOfThem}
		{:else}{wording.whatIsWrittenHereStaysWhen}
			<Button look="link" type="button" onclick={() => setField({ name: shown.name, value: null })}
				>{wording.emptyItInstead}</Button
			>{/if}
	</p>
{/if}
