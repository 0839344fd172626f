<script lang="ts">
	import { PAGE_STATES, type PageState, type Person } from '$core';
	import type { Bench } from '$ui/bench/bench.svelte';
	import Setting from './Setting.svelte';

	/** What a page is: where it stands, who sees it, what it is to be found by. */
	let { bench, act }: { bench: Bench; act: (action: Readonly<Record<string, string>>) => void } = $props();

	const page = $derived(bench.page);
	const author = $derived(page.fields.author as Person | string | undefined);
	const authorName = $derived(typeof author === 'string' ? author : (author?.name ?? ''));
	const authorHandle = $derived(typeof author === 'object' ? (author.handle ?? '') : '');
	const others = $derived(bench.site.languages.filter((tag) => tag !== (page.language ?? bench.site.languages[0])));
	const STATES: Record<PageState, string> = {
		live: 'Live: released, and in search unless hidden',
		draft: 'Draft: not released',
		private: 'Private: not released, and no reader may have it'
	};
	/** A path that cannot be one, as it was typed; one that can is a draft. */
	let wrongPath = $state<string | undefined>();
	let copyTo = $state('');

	function setPath(event: Event & { currentTarget: HTMLInputElement }) {
		const path = event.currentTarget.value.trim();
		const isPath = path.startsWith('/') && !/[\s?#]/.test(path);
		wrongPath = isPath ? undefined : path;
		if (isPath) bench.change('page', { path });
	}
	function setAuthor(change: Partial<Person>) {
		const { author: _old, ...rest } = page.fields;
		const person: Person = { ...(typeof author === 'object' ? author : { name: authorName }), ...change };
		const kept = Object.fromEntries(Object.entries(person).filter(([, value]) => value !== '')) as unknown as Person;
		bench.change('page', { fields: kept.name ? { ...rest, author: kept } : rest });
	}
	const setAlternate = (tag: string) => (event: Event & { currentTarget: HTMLInputElement }) => {
		const { [tag]: _old, ...rest } = page.alternates ?? {};
		const text = event.currentTarget.value.trim();
		const all = text.startsWith('/') ? { ...rest, [tag]: text } : rest;
		bench.change('page', { alternates: Object.keys(all).length > 0 ? all : null });
	};
	const target = $derived((page.target ?? '').trim().toLowerCase());
	const has = (tag: string) =>
		(bench.outcome.head.tags.find((one) => one.tag.name === tag)?.value ?? '').toLowerCase().includes(target);
</script>

<Setting name="Path" hint="The old path will lead to the new one.">
	<input class="mono" value={wrongPath ?? page.path} onchange={setPath} aria-invalid={wrongPath !== undefined} />
</Setting>
{#if wrongPath !== undefined}<p class="refused" role="alert">
		A path begins with a slash and holds no space, ? or #.
	</p>{/if}
<Setting name="Type">
	<select value={page.type} onchange={(event) => bench.change('page', { type: event.currentTarget.value })}>
		{#each bench.data.types as type (type.name)}<option value={type.name}>{type.label ?? type.name}</option>{/each}
	</select>
</Setting>
<Setting name="The mark for video" hint="A sail in a ring, laid over its picture.">
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
<Setting name="Author"
	><input value={authorName} onchange={(event) => setAuthor({ name: event.currentTarget.value.trim() })} /></Setting
>
{#if authorName}
	<Setting name="The author’s account"
		><input
			value={authorHandle}
			placeholder="@name"
			onchange={(event) => setAuthor({ handle: event.currentTarget.value.trim() })}
		/></Setting
	>
{/if}
{#each others as tag (tag)}
	<Setting name="The same page in {tag}" hint="Its path; each should name the other.">
		<input class="mono" value={page.alternates?.[tag] ?? ''} onchange={setAlternate(tag)} />
	</Setting>
{/each}

<h3>The whole page</h3>
<form
	class="row"
	onsubmit={(event) => {
		event.preventDefault();
		act({ do: 'copy', path: page.path, to: copyTo.trim() });
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
		<button class="plain-button" onclick={() => act({ do: 'home', path: page.path })}>Set as home</button>
		<span class="quiet">It changes places with the page at / .</span>
	</p>
{/if}
<details>
	<summary>Keywords (legacy)</summary>
	<p class="quiet">Search engines stopped reading them long ago: what they name helps nobody to find the page.</p>
	<button class="plain-button" onclick={() => act({ do: 'tag', name: 'keywords' })}>Show the layers of keywords</button>
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
	.found,
	.refused {
		margin-top: 3px;
		border-left: 3px solid var(--sea);
		padding-left: 7px;
		font-size: 12.5px;
	}
	.refused {
		border-color: var(--gone);
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
