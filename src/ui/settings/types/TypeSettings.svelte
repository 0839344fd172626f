<script lang="ts">
	import { wording } from '$ui/words/en/settings';
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
	const SPECIAL = {
		home: wording.theHomePage,
		listing: wording.pagesThatListOthers,
		'not-found': wording.theNotFoundPage
	};
</script>

{#if type}
	<Group name={wording.whatTheyAreCalled}>
		<Setting name={wording.whatOneOfThemIsCalled} isSet={type.label !== undefined}>
			<input
				value={type.label ?? type.name}
				oninput={(event) => bench.change('type', { label: event.currentTarget.value.trim() || null })}
			/>
		</Setting>
		<h3 class="mt-3 text-sm font-semibold">{wording.whatOneAndSeveralAreCalled}</h3>
		{#each ['one', 'many'] as const as count (count)}
			<span class="font-mono text-ink-soft">{`{type.${count}}`}</span>
			<WordsRow
				name={count === 'one' ? wording.oneOfThem : wording.severalOfThem}
				words={type.names?.[count]}
				set={(words) => setNames(count, words)}
			/>
		{/each}
	</Group>
	<Group name={wording.kind}>
		<Setting name={wording.thesePagesAreVideos} isSet={type.playMark === true} hint={wording.theMarkForVideoIsLaidOver}>
			<input
				type="checkbox"
				checked={type.playMark ?? false}
				onchange={(event) => bench.change('type', { playMark: event.currentTarget.checked || null })}
			/>
		</Setting>
		<Setting
			name={wording.kindOgType}
			isSet={(type.kind ?? 'website') !== 'website'}
			hint={wording.itsPropertiesSuchAsArticle}
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
			<h3 class="mt-3 text-sm font-semibold">{wording.itsProperties}</h3>
			<ul>
				{#each properties as tag (tag.name)}
					<li class="mt-1 flex items-center gap-2 text-sm">
						<Button
							look="link"
							class="flex-none! font-mono text-sm first:flex-1"
							onclick={() => void act({ do: 'tag', name: tag.name })}>{tag.name}</Button
						>
						<span class="here flex-1 truncate text-right font-serif first:flex-1"
							>{bench.lines.find((line) => line.tag === tag.name)?.value ?? wording.nothingHere}</span
						>
					</li>
				{/each}
			</ul>
		{/if}
		<Setting name={wording.itStandsFor} isSet={type.special !== undefined}>
			<Select
				value={type.special ?? ''}
				choices={[
					['', wording.pagesLikeAnyOther],
					...SPECIAL_KINDS.map((special) => [special, SPECIAL[special]] as const)
				]}
				set={(special) => bench.change('type', { special: special === '' ? null : special })}
			/>
		</Setting>
	</Group>
	<Group name={wording.pictures}>
		<PictureField
			name={wording.itsOwnPicture}
			hint={wording.standsInBeforeTheSitesAPath}
			src={type.picture?.src ?? ''}
			set={(src) => bench.change('type', { picture: src === '' ? null : { src } })}
		/>
		<DefaultPictures />
	</Group>
	<Group name={wording.whetherTheyGoOut}>
		<Setting name={wording.switchedOff} isSet={type.off === true} hint={wording.itsPagesAreLeftOutOfReleases}>
			<input
				type="checkbox"
				checked={type.off === true}
				onchange={(event) => bench.change('type', { off: event.currentTarget.checked || null })}
			/>
		</Setting>
		{#if type.off && (type.special === 'home' || bench.working.page.path === '/')}<Refused>
				{wording.theHomePageIsOfThisType}
			</Refused>{/if}
	</Group>
	<Group name={wording.fieldsAndPieces} about={wording.fieldPiecesContent}>
		<FieldList {act} />
		<PieceList layer="type" {act} />
	</Group>
	<LiveData />
	<Group name={wording.theTypeAsAWhole} about={wording.startingSetRenameTakeAway}>
		<Disclosure strong class="mt-2.5 text-sm" label={wording.startingSets}>
			<p class="text-ink-soft">{wording.fieldsAndTemplatesForACommon}</p>
			<StartingSets {act} />
		</Disclosure>
		<Disclosure strong class="mt-2.5 text-sm" label={wording.thisTypeAsAWhole}>
			<form
				class="row mt-1.5 flex gap-2"
				onsubmit={(event) => {
					event.preventDefault();
					void act({ do: 'rename', name: type.name, to: newName.trim() });
				}}
			>
				<input
					class="min-w-0 flex-1 font-mono"
					aria-label={wording.anotherNameForTheType(type.name)}
					placeholder={type.name}
					bind:value={newName}
				/>
				<Button disabled={newName.trim() === '' || newName.trim() === type.name}>{wording.rename}</Button>
			</form>
			<p class="text-ink-soft">{wording.andSiteFilesSayItsNameIts(`{type.name}`)}</p>
			{#if others.length > 0}
				<form
					class="row mt-1.5 flex gap-2"
					onsubmit={(event) => {
						event.preventDefault();
						void act({ do: 'remove', name: type.name, to: becomes || (others[0]?.name ?? '') });
					}}
				>
					<Select
						aria-label={wording.whatItsPagesBecome}
						value={becomes}
						choices={others.map(
							(other) => [other.name, wording.itsBecome(pagesInWords(count), other.label ?? other.name)] as const
						)}
						set={(name) => (becomes = name)}
					/>
					<Button>{wording.takeTheTypeAway}</Button>
				</form>
				<p class="text-ink-soft">{wording.itsTemplatesFieldsAndLayout}</p>
			{/if}
		</Disclosure>
		<Disclosure strong class="mt-2.5 text-sm" label={wording.anotherType}>
			<form
				class="row mt-1.5 flex gap-2"
				onsubmit={(event) => {
					event.preventDefault();
					void act({ do: 'add', name: newType.trim() });
					newType = '';
				}}
			>
				<input
					class="min-w-0 flex-1"
					aria-label={wording.nameOfANewType}
					placeholder={wording.recipe}
					bind:value={newType}
				/>
				<Button disabled={newType.trim() === ''}>{wording.addType}</Button>
			</form>
		</Disclosure>
	</Group>
{/if}
