<script lang="ts">
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

<Setting name="Path" hint="The old path will lead to the new one.">
	<TextInput class="mono" late value={wrongPath ?? page.path} set={setPath} aria-invalid={wrongPath !== undefined} />
</Setting>
{#if wrongPath !== undefined}<p class="refused" role="alert">
		A path begins with a slash and holds no space, ? or #.
	</p>{/if}
<Setting name="Type">
	<select value={page.type} onchange={(event) => bench.change('page', { type: event.currentTarget.value })}>
		{#each bench.data.types as type (type.name)}<option value={type.name}>{type.label ?? type.name}</option>{/each}
	</select>
</Setting>
<Setting name="Mark for video" hint="A sign over its picture that says: this plays.">
	<select
		value={page.playMark === undefined ? '' : page.playMark ? 'on' : 'off'}
		onchange={(event) => {
			const { value } = event.currentTarget;
			bench.change('page', { playMark: value === '' ? null : value === 'on' });
		}}
	>
		<option value="">As its type says</option>
		<option value="on">Laid over it</option>
		<option value="off">Not laid over it</option>
	</select>
</Setting>
<Setting name="State">
	<select
		value={page.state}
		onchange={(event) => bench.change('page', { state: event.currentTarget.value as PageState })}
	>
		{#each PAGE_STATES as state (state)}<option value={state}>{STATES[state]}</option>{/each}
	</select>
</Setting>
{#if page.path === '/' && page.state !== 'live'}<p class="refused" role="alert">
		This is the home page: no release is made until it is live, or another page is the home page.
	</p>{/if}
<Setting
	name="Hidden from search"
	hint="Search engines are asked not to list it (robots: noindex). Links to it still make cards."
>
	<input
		type="checkbox"
		checked={page.hidden === true}
		onchange={(event) => bench.change('page', { hidden: event.currentTarget.checked || null })}
	/>
</Setting>
<Setting name="Key page" hint="One that matters most: it is checked first.">
	<input
		type="checkbox"
		checked={page.key === true}
		onchange={(event) => bench.change('page', { key: event.currentTarget.checked || null })}
	/>
</Setting>
<Setting name="Target phrase" hint="What people should find it by.">
	<input
		value={page.target ?? ''}
		oninput={(event) => bench.change('page', { target: event.currentTarget.value || null })}
	/>
</Setting>
{#if target !== ''}
	<p class="found" data-testid="target">
		The title {has('title') ? 'has it' : 'does not have it'}; the description {has('description')
			? 'has it'
			: 'does not have it'}.
	</p>
{/if}
<h3>The whole page</h3>
<form
	class="row"
	onsubmit={(event) => {
		event.preventDefault();
		void act({ do: 'copy', path: page.path, to: copyTo.trim() });
	}}
>
	<input
		class="mono"
		aria-label="Path of the copy"
		placeholder="{page.path === '/' ? '' : page.path}/copy"
		bind:value={copyTo}
	/>
	<button class="plain-button" disabled={!copyTo.trim().startsWith('/')}>Copy with its overrides</button>
</form>
{#if page.path !== '/'}
	<p class="row">
		<button class="plain-button" onclick={() => void act({ do: 'home', path: page.path })}>Set as home</button>
		<span class="quiet">It changes places with the page at / .</span>
	</p>
{/if}
<p class="row">
	<button class="plain-button" onclick={() => void act({ do: 'takeAway' })}>Take this page away …</button>
	<span class="quiet">What leads to it is shown first.</span>
</p>
<details>
	<summary>Keywords (legacy)</summary>
	<p class="quiet">Search engines stopped reading them long ago: what they name helps nobody to find the page.</p>
	<button class="plain-button" onclick={() => void act({ do: 'tag', name: 'keywords' })}
		>Show the layers of keywords</button
	>
</details>

<style>
	h3 {
		margin-top: 14px;
		font-size: 13px;
		font-weight: 600;
	}
	.row {
		display: flex;
		gap: 8px;
		align-items: center;
		margin-top: 6px;
		font-size: 13px;
	}
	.row input {
		flex: 1;
		min-width: 0;
	}
	.found {
		margin-top: 3px;
		border-left: 3px solid var(--sea);
		padding-left: 7px;
		font-size: 12.5px;
	}
	details {
		margin-top: 10px;
		font-size: 13px;
	}
	summary {
		cursor: pointer;
		font-weight: 600;
	}
</style>
