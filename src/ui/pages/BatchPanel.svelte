<script lang="ts">
	import { CATALOGUE } from '$core';
	import { call, follow, isRefused } from '../client';
	import { pagesInWords } from '$ui/parts/words';
	import type { BatchAction, BatchPages, BatchSample } from '$server/edits/batch';
	import { beyondInWords, ENDINGS } from './words';

	/** What is done to many pages at once: said first, tried on some, then kept as one edit. */
	let {
		site,
		pages,
		count,
		types,
		done,
		close
	}: {
		site: string;
		pages: BatchPages;
		count: number;
		types: readonly { readonly name: string; readonly label: string }[];
		done: (told: string, edit: number | undefined) => void;
		close: () => void;
	} = $props();

	const DOES = {
		text: 'Write a tag',
		template: 'Write a template',
		borrow: 'The same as another tag',
		clear: 'Set a tag back',
		leaveOut: 'Leave a tag out',
		replace: 'Replace words in what pages say themselves',
		found: 'Set found values aside',
		type: 'Change the type',
		language: 'Change the language',
		state: 'Change the state',
		hidden: 'Hide from search',
		shown: 'Show to search',
		key: 'Make key pages',
		noKey: 'No key pages any more',
		picture: 'Set the share picture',
		pin: 'Pin what their cards say',
		noPin: 'Take the pins off'
	} as const;
	const NEEDS_TAG = ['text', 'template', 'borrow', 'clear', 'leaveOut', 'replace', 'found'];
	let what = $state<keyof typeof DOES>('text');
	let tag = $state('description');
	let text = $state('');
	let by = $state('');
	let other = $state('title');
	let sample = $state<BatchSample | undefined>();
	let refused = $state('');
	let busy = $state(false);
	/** The change that is being made, and how many pages it has been over. */
	let going = $state.raw<AbortController | undefined>();
	let seen = $state(0);
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
				return { do: 'replace', tag, find: text, by };
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
	const isReady = $derived(!['text', 'template', 'replace', 'picture'].includes(what) || text !== '');

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
		seen = 0;
		const stop = (going = new AbortController());
		const answer = await follow(
			'POST /sites/{site}/batch',
			{ site, body: asked() },
			{ signal: stop.signal, progress: (done) => (seen = done) },
			ENDINGS
		);
		going = undefined;
		busy = false;
		refused = isRefused(answer) ? answer.refused : '';
		if (isRefused(answer)) return;
		sample = undefined;
		done(`${DOES[what]}: ${pagesInWords(answer.changed)} changed, as one edit.`, answer.edit);
	}
	// What was looked at is of what was said then.
	$effect(() => {
		void [action, pages];
		sample = undefined;
	});
</script>

<aside aria-label="Change many at once">
	<h2>{pagesInWords(count)} chosen <button class="plain-button" onclick={close}>None</button></h2>
	<label
		>What is done
		<select bind:value={what} onchange={() => (text = '')}>
			{#each Object.entries(DOES) as [id, name] (id)}<option value={id}>{name}</option>{/each}
		</select>
	</label>
	{#if NEEDS_TAG.includes(what)}
		<label
			>Tag
			<select class="mono" bind:value={tag}
				>{#each tags as name (name)}<option>{name}</option>{/each}</select
			>
		</label>
	{/if}
	{#if what === 'text'}<label>Words<textarea rows="3" bind:value={text}></textarea></label>
	{:else if what === 'template'}<label
			>Template<textarea
				class="mono"
				rows="3"
				placeholder="&#123;page.title&#125; &#123;separator&#125; &#123;site.name&#125;"
				bind:value={text}></textarea></label
		>
	{:else if what === 'borrow'}<label
			>The same as<select class="mono" bind:value={other}
				>{#each tags as name (name)}<option>{name}</option>{/each}</select
			></label
		>
	{:else if what === 'replace'}
		<label>Words<input bind:value={text} /></label>
		<label>become<input bind:value={by} /></label>
	{:else if what === 'type'}
		<label
			>Type<select bind:value={() => text || types[0]?.name, (value) => (text = value ?? '')}
				>{#each types as { name, label } (name)}<option value={name}>{label}</option>{/each}</select
			></label
		>
	{:else if what === 'language'}<label
			>Language tag<input class="mono" placeholder="fr, pt-BR; empty: as the site" bind:value={text} /></label
		>
	{:else if what === 'state'}
		<label
			>State<select bind:value={() => text || 'live', (value) => (text = value)}
				><option>live</option><option>draft</option><option>private</option></select
			></label
		>
	{:else if what === 'picture'}<label
			>Picture<input class="mono" placeholder="/pictures/heath.jpg" bind:value={text} /></label
		>{/if}
	<p class="actions">
		<button class="plain-button" disabled={!isReady || busy} onclick={() => void look()}>See what would change</button>
	</p>
	{#if refused}<p class="refused" role="alert">{refused}</p>{/if}
	{#if sample}
		<div class="sample" role="status" data-testid="sample">
			<p>
				{#if sample.beyond > 0}<strong role="alert">{beyondInWords(sample.beyond)}</strong>
				{/if}
				{#if sample.replaced > 0}
					<strong class="lost"
						>{sample.replaced === 1 ? '1 page says' : `${sample.replaced.toLocaleString('en')} pages say`}
						{tagOfAction}
						{sample.replaced === 1 ? 'itself' : 'themselves'}: that goes.</strong
					>
				{/if}
				<strong>{sample.changed} of the {sample.lookedAt} looked at</strong> would change{sample.better > 0
					? `, ${sample.better} for the better`
					: ''}{sample.worse > 0 ? `, ${sample.worse} for the worse` : ''}.
			</p>
			<button
				class="main-button"
				disabled={busy || sample.changed === 0 || sample.beyond > 0}
				onclick={() => void run()}>{busy ? 'Changing …' : `Change ${pagesInWords(count)}`}</button
			>
			{#if going}
				<p class="going" role="status">
					<progress max={count} value={seen} aria-label="Pages looked at"></progress>
					{seen.toLocaleString('en')} of {pagesInWords(count)}
					<button class="plain-button" onclick={() => going?.abort()}>Stop</button>
				</p>
			{/if}
			{#each sample.sample as one (one.path)}
				<div class="one">
					<p class="mono">{one.path}</p>
					{#if one.before !== one.after}<p class="before">
							<span class="sr-only">before: </span>{one.before || 'nothing'}
						</p>
						<p class="after serif"><span class="sr-only">after: </span>{one.after || 'nothing'}</p>{/if}
					{#each one.gained as told (told)}<p class="worse">Worse: {told}</p>{/each}
					{#each one.lost as told (told)}<p class="better">Mended: {told}</p>{/each}
				</div>
			{/each}
		</div>
	{/if}
</aside>

<style>
	aside {
		/* What is written for those who listen stands within it. */
		position: relative;
		display: flex;
		flex: 0 0 330px;
		flex-direction: column;
		gap: 9px;
		overflow-y: auto;
		border-left: 1px solid var(--rule-strong);
		padding: 12px 14px;
		font-size: 13px;
	}
	h2 {
		display: flex;
		justify-content: space-between;
		font-size: 15px;
		font-weight: 600;
	}
	label {
		display: grid;
		gap: 2px;
		font-weight: 600;
	}
	label :is(select, input, textarea) {
		width: 100%;
		font-weight: 400;
	}
	.sample {
		border-top: 1px solid var(--rule);
		padding-top: 8px;
	}
	.sample .main-button {
		margin: 6px 0;
	}
	.going {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 6px 10px;
		margin-top: 8px;
	}
	.going progress {
		flex: 1 1 100%;
	}
	.one {
		margin: 7px 0;
		border-left: 3px solid var(--rule-strong);
		padding-left: 8px;
	}
	.one .mono {
		overflow-wrap: anywhere;
		font-size: 12px;
		color: var(--ink-soft);
	}
	.before {
		color: var(--ink-soft);
		text-decoration: line-through;
	}
	.lost,
	.worse {
		color: var(--gone);
	}
	.better {
		color: var(--sea);
	}
</style>
