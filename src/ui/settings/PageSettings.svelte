<script lang="ts">
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
		live: 'Live: released, and in search unless hidden',
		draft: 'Draft: not released',
		private: 'Private: not released, and no reader may have it'
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

<Group name="Where and what">
	<Setting name="Path" hint="The old path will lead to the new one.">
		<TextInput
			class="font-mono"
			late
			value={wrongPath ?? page.path}
			set={setPath}
			aria-invalid={wrongPath !== undefined}
		/>
	</Setting>
	{#if wrongPath !== undefined}<Refused>A path begins with a slash and holds no space, ? or #.</Refused>{/if}
	<Setting name="Type">
		<Select
			value={page.type}
			choices={bench.data.types.map((type) => [type.name, type.label ?? type.name] as const)}
			set={(type) => bench.change('page', { type })}
		/>
	</Setting>
	<Setting
		name="Mark for video"
		isSet={page.playMark !== undefined}
		hint="A sign over its picture that says: this plays."
	>
		<Select
			value={page.playMark === undefined ? '' : page.playMark ? 'on' : 'off'}
			choices={[
				['', 'As its type says'],
				['on', 'Laid over it'],
				['off', 'Not laid over it']
			]}
			set={(said) => bench.change('page', { playMark: said === '' ? null : said === 'on' })}
		/>
	</Setting>
</Group>
<Group name="Who finds it">
	<Setting name="State" isSet={page.state !== 'live'}>
		<Select
			value={page.state}
			choices={PAGE_STATES.map((state) => [state, STATES[state]] as const)}
			set={(state: PageState) => bench.change('page', { state })}
		/>
	</Setting>
	{#if page.path === '/' && page.state !== 'live'}<Refused>
			This is the home page: no release is made until it is live, or another page is the home page.
		</Refused>{/if}
	<Setting
		name="Hidden from search"
		isSet={page.hidden === true}
		hint="Search engines are asked not to list it (robots: noindex). Links to it still make cards."
	>
		<input
			type="checkbox"
			checked={page.hidden === true}
			onchange={(event) => bench.change('page', { hidden: event.currentTarget.checked || null })}
		/>
	</Setting>
	<Setting name="Key page" isSet={page.key === true} hint="One that matters most: it is checked first.">
		<input
			type="checkbox"
			checked={page.key === true}
			onchange={(event) => bench.change('page', { key: event.currentTarget.checked || null })}
		/>
	</Setting>
	<Setting name="Target phrase" isSet={target !== ''} hint="What people should find it by.">
		<input
			value={page.target ?? ''}
			oninput={(event) => bench.change('page', { target: event.currentTarget.value || null })}
		/>
	</Setting>
	{#if target !== ''}
		<p class="mt-0.75 border-l-3 border-l-sea pl-1.75 text-sm" data-testid="target">
			The title {has('title') ? 'has it' : 'does not have it'}; the description {has('description')
				? 'has it'
				: 'does not have it'}.
		</p>
	{/if}
</Group>
<Group name="The whole page" about="copy overrides set as home take away keywords">
	<form
		class="row mt-1.5 flex items-center gap-2 text-sm"
		onsubmit={(event) => {
			event.preventDefault();
			void act({ do: 'copy', path: page.path, to: copyTo.trim() });
		}}
	>
		<input
			class="min-w-0 flex-1 font-mono"
			aria-label="Path of the copy"
			placeholder="{page.path === '/' ? '' : page.path}/copy"
			bind:value={copyTo}
		/>
		<Button disabled={!copyTo.trim().startsWith('/')}>Copy with its overrides</Button>
	</form>
	{#if page.path !== '/'}
		<p class="row mt-1.5 flex items-center gap-2 text-sm">
			<Button onclick={() => void act({ do: 'home', path: page.path })}>Set as home</Button>
			<span class="text-ink-soft">It changes places with the page at / .</span>
		</p>
	{/if}
	<p class="row mt-1.5 flex items-center gap-2 text-sm">
		<Button onclick={() => void act({ do: 'takeAway' })}>Take this page away …</Button>
		<span class="text-ink-soft">What leads to it is shown first.</span>
	</p>
	<Disclosure strong class="mt-2.5 text-sm" label="Keywords (legacy)">
		<p class="text-ink-soft">
			Search engines stopped reading them long ago: what they name helps nobody to find the page.
		</p>
		<Button onclick={() => void act({ do: 'tag', name: 'keywords' })}>Show the layers of keywords</Button>
	</Disclosure>
</Group>
