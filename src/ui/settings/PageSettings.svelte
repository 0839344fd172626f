<script lang="ts">
	import { wording } from '$ui/words/en/settings';
	import Group from './Group.svelte';
	import Disclosure from '$ui/parts/shown/Disclosure.svelte';
	import Select from '$ui/parts/select/Select.svelte';
	import Button from '$ui/parts/Button.svelte';
	import Refused from '$ui/parts/Refused.svelte';
	import type { Action } from '$ui/workspace/actions';
	import { PAGE_STATES, type PageState } from '$core';
	import { benchInView } from '$ui/workspace/context';
	import TextInput from '$ui/parts/TextInput.svelte';
	import Setting from './Setting.svelte';

	/** What a page is: where it stands, who sees it, what it is to be found by. */
	let { act }: { act: (action: Action) => Promise<void> } = $props();
	const bench = benchInView();

	const page = $derived(bench.working.page);
	const STATES: Record<PageState, string> = {
		live: wording.liveReleasedAndInSearch,
		draft: wording.draftNotReleased,
		private: wording.privateNotReleasedAndNo
	};
	/** A path that cannot be one, as it was typed; one that can is a draft. */
	let wrongPath = $state<string | undefined>();
	let copyTo = $state('');

	function setPath(text: string) {
		const path = text.trim();
		const isPath = path.startsWith('/') && !/[\s?#]/.test(path);
		wrongPath = isPath ? undefined : path;
		if (isPath) bench.change('page', { path });
	}
	const target = $derived((page.target ?? '').trim().toLowerCase());
	const has = (tag: string) =>
		(bench.working.head.tags.find((one) => one.tag.name === tag)?.value ?? '').toLowerCase().includes(target);
</script>

<Group name={wording.whereAndWhat}>
	<Setting name={wording.path} hint={wording.theOldPathWillLeadToThe}>
		<TextInput
			class="font-mono"
			late
			value={wrongPath ?? page.path}
			set={setPath}
			aria-invalid={wrongPath !== undefined}
		/>
	</Setting>
	{#if wrongPath !== undefined}<Refused>{wording.aPathBeginsWithASlashAnd}</Refused>{/if}
	<Setting name={wording.type}>
		<Select
			value={page.type}
			choices={bench.data.types.map((type) => [type.name, type.label ?? type.name] as const)}
			set={(type) => bench.change('page', { type })}
		/>
	</Setting>
	<Setting name={wording.markForVideo} isSet={page.playMark !== undefined} hint={wording.aSignOverItsPictureThatSays}>
		<Select
			value={page.playMark === undefined ? '' : page.playMark ? 'on' : 'off'}
			choices={[
				['', wording.asItsTypeSays],
				['on', wording.laidOverIt],
				['off', wording.notLaidOverIt]
			]}
			set={(said) => bench.change('page', { playMark: said === '' ? null : said === 'on' })}
		/>
	</Setting>
</Group>
<Group name={wording.whoFindsIt}>
	<Setting name={wording.state} isSet={page.state !== 'live'}>
		<Select
			value={page.state}
			choices={PAGE_STATES.map((state) => [state, STATES[state]] as const)}
			set={(state: PageState) => bench.change('page', { state })}
		/>
	</Setting>
	{#if page.path === '/' && page.state !== 'live'}<Refused>
			{wording.thisIsTheHomePageNoRelease}
		</Refused>{/if}
	<Setting name={wording.hiddenFromSearch} isSet={page.hidden === true} hint={wording.searchEnginesAreAskedNotTo}>
		<input
			type="checkbox"
			checked={page.hidden === true}
			onchange={(event) => bench.change('page', { hidden: event.currentTarget.checked || null })}
		/>
	</Setting>
	<Setting name={wording.keyPage} isSet={page.key === true} hint={wording.oneThatMattersMostItIs}>
		<input
			type="checkbox"
			checked={page.key === true}
			onchange={(event) => bench.change('page', { key: event.currentTarget.checked || null })}
		/>
	</Setting>
	<Setting name={wording.targetPhrase} isSet={target !== ''} hint={wording.whatPeopleShouldFindItBy}>
		<input
			value={page.target ?? ''}
			oninput={(event) => bench.change('page', { target: event.currentTarget.value || null })}
		/>
	</Setting>
	{#if target !== ''}
		<p class="mt-0.75 border-l-3 border-l-sea pl-1.75 text-sm" data-testid="target">
			{wording.theTitleTheDescription(
				has('title') ? wording.hasIt : wording.doesNotHaveIt,
				has('description') ? wording.hasIt : wording.doesNotHaveIt
			)}
		</p>
	{/if}
</Group>
<Group name={wording.theWholePage} about={wording.copyOverridesSetAsHomeTake}>
	<form
		class="row mt-1.5 flex items-center gap-2 text-sm"
		onsubmit={(event) => {
			event.preventDefault();
			void act({ do: 'copy', path: page.path, to: copyTo.trim() });
		}}
	>
		<input
			class="min-w-0 flex-1 font-mono"
			aria-label={wording.pathOfTheCopy}
			placeholder="{page.path === '/' ? '' : page.path}/copy"
			bind:value={copyTo}
		/>
		<Button disabled={!copyTo.trim().startsWith('/')}>{wording.copyWithItsOverrides}</Button>
	</form>
	{#if page.path !== '/'}
		<p class="row mt-1.5 flex items-center gap-2 text-sm">
			<Button onclick={() => void act({ do: 'home', path: page.path })}>{wording.setAsHome}</Button>
			<span class="text-ink-soft">{wording.itChangesPlacesWithThePageAt}</span>
		</p>
	{/if}
	<p class="row mt-1.5 flex items-center gap-2 text-sm">
		<Button onclick={() => void act({ do: 'takeAway' })}>{wording.takeThisPageAway}</Button>
		<span class="text-ink-soft">{wording.whatLeadsToItIsShownFirst}</span>
	</p>
	<Disclosure strong class="mt-2.5 text-sm" label={wording.keywordsLegacy}>
		<p class="text-ink-soft">
			{wording.searchEnginesStoppedReading}
		</p>
		<Button onclick={() => void act({ do: 'tag', name: 'keywords' })}>{wording.showTheLayersOfKeywords}</Button>
	</Disclosure>
</Group>
