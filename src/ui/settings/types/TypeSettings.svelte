<script lang="ts">
	import Group from '../Group.svelte';
	import Disclosure from '$ui/parts/shown/Disclosure.svelte';
	import Select from '$ui/parts/select/Select.svelte';
	import Button from '$ui/parts/Button.svelte';
	import Refused from '$ui/parts/Refused.svelte';
	import type { Action } from '$ui/workspace/actions';
	import { CATALOGUE, findTag, SPECIAL_KINDS, type Words } from '$core';
	import { benchInView } from '$ui/workspace/context';
	import { pagesInWords } from '$ui/parts/words';
	import DefaultPictures from './DefaultPictures.svelte';
	import LiveData from './LiveData.svelte';
	import FieldList from './FieldList.svelte';
	import PieceList from '../PieceList.svelte';
	import WordsRow from '../WordsRow.svelte';
	import PictureField from '../PictureField.svelte';
	import Setting from '../Setting.svelte';
	import StartingSets from './StartingSets.svelte';

	/** What a content type is: its fields, its kind, what it is special for, and a starting set to take. */
	let { act }: { act: (action: Action) => Promise<void> } = $props();
	const bench = benchInView();

	const type = $derived(bench.working.type);
	const kinds = findTag('og:type')?.choices ?? [];
	/** The tags that go with its kind: each is filled by a rule of its own. */
	const properties = $derived(
		CATALOGUE.filter((tag) => tag.name.startsWith(`${(type?.kind ?? 'website').split('.')[0]}:`) && !tag.parent)
	);
	function setNames(count: 'one' | 'many', words: Words | undefined) {
		const { [count]: _old, ...other } = type?.names ?? {};
		const names = words ? { ...other, [count]: words } : other;
		bench.change('type', { names: Object.keys(names).length > 0 ? names : null });
	}
	let newType = $state('');
	let newName = $state('');
	let becomes = $state('');
	const others = $derived(bench.data.types.filter((one) => one.name !== type?.name));
	const count = $derived(bench.data.count.byType[type?.name ?? ''] ?? 0);
	const SPECIAL = { home: 'the home page', listing: 'pages that list others', 'not-found': 'the not-found page' };
</script>

{#if type}
	<Group name="What they are called">
		<Setting name="What one of them is called" isSet={type.label !== undefined}>
			<input
				value={type.label ?? type.name}
				oninput={(event) => bench.change('type', { label: event.currentTarget.value.trim() || null })}
			/>
		</Setting>
		<h3 class="mt-3 text-sm font-semibold">What one and several are called</h3>
		{#each ['one', 'many'] as const as count (count)}
			<span class="font-mono text-ink-soft">{`{type.${count}}`}</span>
			<WordsRow
				name={count === 'one' ? 'One of them' : 'Several of them'}
				words={type.names?.[count]}
				set={(words) => setNames(count, words)}
			/>
		{/each}
	</Group>
	<Group name="Kind">
		<Setting
			name="These pages are videos"
			isSet={type.playMark === true}
			hint="The mark for video is laid over their pictures."
		>
			<input
				type="checkbox"
				checked={type.playMark ?? false}
				onchange={(event) => bench.change('type', { playMark: event.currentTarget.checked || null })}
			/>
		</Setting>
		<Setting
			name="Kind (og:type)"
			isSet={(type.kind ?? 'website') !== 'website'}
			hint="Its properties, such as article:author, are filled from the fields of the same meaning."
		>
			<Select
				value={type.kind === 'website' ? '' : (type.kind ?? '')}
				choices={[
					['', 'website'],
					...kinds.filter((kind) => kind !== 'website'),
					...(type.kind && !kinds.includes(type.kind) ? [type.kind] : [])
				]}
				set={(kind) => bench.change('type', { kind: kind || null })}
			/>
		</Setting>
		{#if properties.length > 0}
			<h3 class="mt-3 text-sm font-semibold">Its properties</h3>
			<ul>
				{#each properties as tag (tag.name)}
					<li class="mt-1 flex items-center gap-2 text-sm">
						<Button
							look="link"
							class="flex-none! font-mono text-sm first:flex-1"
							onclick={() => void act({ do: 'tag', name: tag.name })}>{tag.name}</Button
						>
						<span class="here flex-1 truncate text-right font-serif first:flex-1"
							>{bench.lines.find((line) => line.tag === tag.name)?.value ?? 'nothing here'}</span
						>
					</li>
				{/each}
			</ul>
		{/if}
		<Setting name="It stands for" isSet={type.special !== undefined}>
			<Select
				value={type.special ?? ''}
				choices={[
					['', 'pages like any other'],
					...SPECIAL_KINDS.map((special) => [special, SPECIAL[special]] as const)
				]}
				set={(special) => bench.change('type', { special: special === '' ? null : special })}
			/>
		</Setting>
	</Group>
	<Group name="Pictures">
		<PictureField
			name="Its own picture"
			hint="Stands in before the site’s. A path or an address."
			src={type.picture?.src ?? ''}
			set={(src) => bench.change('type', { picture: src === '' ? null : { src } })}
		/>
		<DefaultPictures />
	</Group>
	<Group name="Whether they go out">
		<Setting name="Switched off" isSet={type.off === true} hint="Its pages are left out of releases.">
			<input
				type="checkbox"
				checked={type.off === true}
				onchange={(event) => bench.change('type', { off: event.currentTarget.checked || null })}
			/>
		</Setting>
		{#if type.off && (type.special === 'home' || bench.working.page.path === '/')}<Refused>
				The home page is of this type: no release is made while it is switched off.
			</Refused>{/if}
	</Group>
	<Group name="Fields and pieces" about="field pieces content">
		<FieldList {act} />
		<PieceList layer="type" {act} />
	</Group>
	<LiveData />
	<Group name="The type as a whole" about="starting set rename take away another type add">
		<Disclosure strong class="mt-2.5 text-sm" label="Starting sets">
			<p class="text-ink-soft">Fields and templates for a common kind of page, to take and change.</p>
			<StartingSets {act} />
		</Disclosure>
		<Disclosure strong class="mt-2.5 text-sm" label="This type as a whole">
			<form
				class="row mt-1.5 flex gap-2"
				onsubmit={(event) => {
					event.preventDefault();
					void act({ do: 'rename', name: type.name, to: newName.trim() });
				}}
			>
				<input
					class="min-w-0 flex-1 font-mono"
					aria-label="Another name for the type {type.name}"
					placeholder={type.name}
					bind:value={newName}
				/>
				<Button disabled={newName.trim() === '' || newName.trim() === type.name}>Rename</Button>
			</form>
			<p class="text-ink-soft">{`{type.name}`} and site files say its name; its pages follow.</p>
			{#if others.length > 0}
				<form
					class="row mt-1.5 flex gap-2"
					onsubmit={(event) => {
						event.preventDefault();
						void act({ do: 'remove', name: type.name, to: becomes || (others[0]?.name ?? '') });
					}}
				>
					<Select
						aria-label="What its pages become"
						value={becomes}
						choices={others.map(
							(other) => [other.name, `its ${pagesInWords(count)} become ${other.label ?? other.name}`] as const
						)}
						set={(name) => (becomes = name)}
					/>
					<Button>Take the type away</Button>
				</form>
				<p class="text-ink-soft">Its templates, fields and layout go; the values of its pages stay with them.</p>
			{/if}
		</Disclosure>
		<Disclosure strong class="mt-2.5 text-sm" label="Another type">
			<form
				class="row mt-1.5 flex gap-2"
				onsubmit={(event) => {
					event.preventDefault();
					void act({ do: 'add', name: newType.trim() });
					newType = '';
				}}
			>
				<input class="min-w-0 flex-1" aria-label="Name of a new type" placeholder="recipe" bind:value={newType} />
				<Button disabled={newType.trim() === ''}>Add type</Button>
			</form>
		</Disclosure>
	</Group>
{/if}
