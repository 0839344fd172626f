<script lang="ts">
	import { wording } from '$ui/words/en/pages';
	import { counted } from '$ui/words/speaking';
	import { works, type Work } from '$ui/works/works.svelte';
	import WorkLine from '$ui/works/WorkLine.svelte';
	import Select from '$ui/parts/select/Select.svelte';
	import Button from '$ui/parts/Button.svelte';
	import Refused from '$ui/parts/Refused.svelte';
	import { CATALOGUE, PAGE_FIELDS, PAGE_STATES } from '$core';
	import { call, follow, isRefused } from '../client';
	import { pagesInWords } from '$ui/parts/words';
	import type { BatchAction, BatchPages, BatchSample } from '$server/edits/batch';
	import { beyondInWords, ENDINGS, type WrittenField } from './words';

	/** What is done to many pages at once: said first, tried on some, then kept as one edit. */
	let {
		site,
		pages,
		count,
		first,
		types,
		done,
		close
	}: {
		site: string;
		pages: BatchPages;
		count: number;
		/** The path of one of them: what is written is tried on it as it is typed. */
		first: string | undefined;
		types: readonly { readonly name: string; readonly label: string }[];
		done: (told: string, edit: number | undefined) => void;
		close: () => void;
	} = $props();

	const DOES = {
		text: wording.writeATag,
		template: wording.writeATemplate,
		borrow: wording.theSameAsAnotherTag,
		field: wording.writeAField,
		clear: wording.setATagBack,
		leaveOut: wording.leaveATagOut,
		replace: wording.replaceWordsInWhatPagesSay,
		replaceInField: wording.replaceWordsInAField,
		found: wording.setFoundValuesAside,
		type: wording.changeTheType,
		language: wording.changeTheLanguage,
		state: wording.changeTheState,
		hidden: wording.hideFromSearch,
		shown: wording.showToSearch,
		key: wording.makeKeyPages,
		noKey: wording.noKeyPagesAnyMore,
		picture: wording.setTheSharePicture,
		pin: wording.pinWhatTheirCardsSay,
		noPin: wording.takeThePinsOff
	} as const;
	const NEEDS_TAG = ['text', 'template', 'borrow', 'clear', 'leaveOut', 'replace', 'found'];
	let what = $state<keyof typeof DOES>('text');
	let tag = $state('description');
	let text = $state('');
	let by = $state('');
	/** Words alone, and not what stands within others. */
	let whole = $state(true);
	/** The field that is written, and what: undefined while that is not said, null to empty it. */
	let field = $state.raw<WrittenField>({ name: 'summary', value: undefined });
	const TEXT_FIELDS = PAGE_FIELDS.filter(({ kind }) => kind === 'text' || kind === 'rich');
	let inField = $state('summary');
	let other = $state('title');
	let sample = $state<BatchSample | undefined>();
	let refused = $state('');
	let busy = $state(false);
	/** The change that is being made, and how many pages it has been over. */
	let going = $state.raw<Work | undefined>();
	const tags = CATALOGUE.filter((one) => !one.fact).map(({ name }) => name);

	const action = $derived.by((): BatchAction => {
		switch (what) {
			case 'text':
				return { do: 'text', tag, text };
			case 'template':
				return { do: 'rule', tag, body: { kind: 'template', template: text } };
			case 'borrow':
				return { do: 'rule', tag, body: { kind: 'borrow', from: other } };
			case 'clear':
				return { do: 'rule', tag, body: null };
			case 'leaveOut':
				return { do: 'rule', tag, body: { kind: 'leaveOut' } };
			case 'replace':
				return { do: 'replace', tag, find: text, by, whole };
			case 'replaceInField':
				return { do: 'replaceInField', name: inField.trim(), find: text, by, whole };
			case 'field':
				return { do: 'field', name: field.name, value: field.value ?? null };
			case 'found':
				return { do: 'found', tag, take: false };
			case 'type':
				return { do: 'type', type: text || (types[0]?.name ?? '') };
			case 'language':
				return { do: 'language', language: text.trim() };
			case 'state':
				return { do: 'state', state: (text || 'live') as 'live' };
			case 'hidden':
			case 'shown':
				return { do: 'hidden', on: what === 'hidden' };
			case 'key':
			case 'noKey':
				return { do: 'key', on: what === 'key' };
			case 'pin':
			case 'noPin':
				return { do: 'pin', on: what === 'pin' };
			case 'picture':
				return {
					do: 'rule',
					tag: 'og:image',
					body: { kind: 'pictures', sources: [{ from: 'file', src: text.trim() }] }
				};
		}
	});
	const tagOfAction = $derived('tag' in action ? action.tag : '');
	const isReady = $derived(
		what === 'field'
			? field.value !== undefined
			: !['text', 'template', 'replace', 'replaceInField', 'picture'].includes(what) || text !== ''
	);

	const asked = () => ({
		pages: $state.snapshot(pages) as BatchPages,
		action: $state.snapshot(action) as BatchAction
	});
	async function look() {
		busy = true;
		const answer = await call('POST /sites/{site}/batch/sample', { site, body: asked() });
		busy = false;
		refused = isRefused(answer) ? answer.refused : '';
		sample = isRefused(answer) ? undefined : answer;
	}
	async function run() {
		busy = true;
		const work = (going = works.begin(site, wording.changingPages));
		work.progress(0, count);
		const answer = await follow(
			'POST /sites/{site}/batch',
			{ site, body: asked() },
			{ signal: work.signal, progress: (done) => work.progress(done, count) },
			ENDINGS
		);
		going = undefined;
		busy = false;
		refused = isRefused(answer) ? answer.refused : '';
		if (isRefused(answer)) return works.end(work, refused, true);
		const says = wording.changedAsOneEdit(DOES[what], pagesInWords(answer.changed));
		works.end(work, says);
		sample = undefined;
		done(says, answer.edit);
	}
	// What was looked at is of what was said then.
	$effect(() => {
		void [action, pages];
		sample = undefined;
	});
</script>

<aside
	class="relative flex flex-[0_0_330px] flex-col gap-2.25 overflow-y-auto border-l border-l-rule-strong px-3.5 py-3 text-sm"
	aria-label={wording.changeManyAtOnce}
>
	<h2 class="flex justify-between text-md font-semibold">
		{wording.chosen(pagesInWords(count))}
		<Button onclick={close}>{wording.none}</Button>
	</h2>
	<label class="grid gap-0.5 font-semibold"
		>{wording.whatIsDone}
		<Select
			class="w-full font-normal"
			value={what}
			choices={Object.entries(DOES)}
			set={(id) => {
				what = id as typeof what;
				text = '';
			}}
		/>
	</label>
	{#if NEEDS_TAG.includes(what)}
		<label class="grid gap-0.5 font-semibold"
			>{wording.tag}
			<Select class="w-full font-mono font-normal" value={tag} choices={tags} set={(name) => (tag = name)} />
		</label>
	{/if}
	{#if what === 'text'}<label class="grid gap-0.5 font-semibold"
			>{wording.words}<textarea class="w-full font-normal" rows="3" bind:value={text}></textarea></label
		>
	{:else if (what === 'template' || what === 'field') && first !== undefined}
		{#await import('./BatchWritten.svelte') then { default: BatchWritten }}
			<BatchWritten
				{site}
				path={first}
				{what}
				{tag}
				template={text}
				setTemplate={(written) => (text = written)}
				{field}
				setField={(written) => (field = written)}
			/>
		{/await}
	{:else if what === 'borrow'}<label class="grid gap-0.5 font-semibold"
			>{wording.theSameAs}<Select
				class="w-full font-mono font-normal"
				value={other}
				choices={tags}
				set={(name) => (other = name)}
			/></label
		>
	{:else if what === 'replace' || what === 'replaceInField'}
		{#if what === 'replaceInField'}
			<label class="grid gap-0.5 font-semibold"
				>{wording.field}<input class="w-full font-mono font-normal" list="text-fields" bind:value={inField} /></label
			>
			<datalist id="text-fields">
				{#each TEXT_FIELDS as { name, label } (name)}<option value={name}>{label}</option>{/each}
			</datalist>
		{/if}
		<label class="grid gap-0.5 font-semibold"
			>{wording.words}<input class="w-full font-normal" bind:value={text} /></label
		>
		<label class="grid gap-0.5 font-semibold"
			>{wording.become}<input class="w-full font-normal" bind:value={by} /></label
		>
		<label class="flex items-center gap-1.5"
			><input type="checkbox" bind:checked={whole} /> {wording.wholeWordsAlone}</label
		>
	{:else if what === 'type'}
		<label class="grid gap-0.5 font-semibold"
			>{wording.type}<Select
				class="w-full font-normal"
				value={text || (types[0]?.name ?? '')}
				choices={types.map(({ name, label }) => [name, label] as const)}
				set={(name) => (text = name)}
			/></label
		>
	{:else if what === 'language'}<label class="grid gap-0.5 font-semibold"
			>{wording.languageTag}<input
				class="w-full font-mono font-normal"
				placeholder={wording.frPtBrEmptyAsTheSite}
				bind:value={text}
			/></label
		>
	{:else if what === 'state'}
		<label class="grid gap-0.5 font-semibold"
			>{wording.state}<Select
				class="w-full font-normal"
				value={text || 'live'}
				choices={PAGE_STATES}
				set={(state) => (text = state)}
			/></label
		>
	{:else if what === 'picture'}<label class="grid gap-0.5 font-semibold"
			>{wording.picture}<input
				class="w-full font-mono font-normal"
				placeholder="/pictures/heath.jpg"
				bind:value={text}
			/></label
		>{/if}
	<p class="actions">
		<Button disabled={!isReady || busy} onclick={() => void look()}>{wording.seeWhatWouldChange}</Button>
	</p>
	{#if refused}<Refused>{refused}</Refused>{/if}
	{#if sample}
		<div class="border-t border-t-rule pt-2" role="status" data-testid="sample">
			<p>
				{#if sample.beyond > 0}<strong role="alert">{beyondInWords(sample.beyond)}</strong>
				{/if}
				{#if sample.replaced > 0}
					<strong class="text-gone"
						>{wording.thatGoes(
							sample.replaced === 1 ? wording.n1PageSays : wording.pagesSay(counted(sample.replaced)),
							tagOfAction,
							sample.replaced === 1 ? wording.itself : wording.themselves
						)}</strong
					>
				{/if}
				<strong>{wording.ofTheLookedAt(sample.changed, sample.lookedAt)}</strong>
				{wording.wouldChange(
					sample.better > 0 ? wording.forTheBetter(sample.better) : '',
					sample.worse > 0 ? wording.forTheWorse(sample.worse) : ''
				)}
			</p>
			<Button
				look="main"
				class="mx-0 my-1.5"
				disabled={busy || sample.changed === 0 || sample.beyond > 0}
				onclick={() => void run()}>{busy ? wording.changing : wording.change(pagesInWords(count))}</Button
			>
			{#if going}
				<p class="mt-2 flex"><WorkLine work={going} /></p>
			{/if}
			{#each sample.sample as one (one.path)}
				<div class="one mx-0 my-1.75 border-l-3 border-l-rule-strong pl-2">
					<p class="font-mono text-xs wrap-anywhere text-ink-soft">{one.path}</p>
					{#if one.before !== one.after}<p class="before text-ink-soft line-through">
							<span class="sr-only">{wording.before} </span>{one.before || wording.nothing}
						</p>
						<p class="after font-serif">
							<span class="sr-only">{wording.after} </span>{one.after || wording.nothing}
						</p>{/if}
					{#each one.gained as told (told)}<p class="text-gone">{wording.worse(told)}</p>{/each}
					{#each one.lost as told (told)}<p class="text-sea">{wording.mended(told)}</p>{/each}
				</div>
			{/each}
		</div>
	{/if}
</aside>
