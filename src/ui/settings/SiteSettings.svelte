<script lang="ts">
	import { wording } from '$ui/words/en/settings';
	import Toggles from '$ui/parts/Toggles.svelte';
	import Group from './Group.svelte';
	import Button from '$ui/parts/Button.svelte';
	import Refused from '$ui/parts/Refused.svelte';
	import { canonicalLanguage, checkBase, isLanguageTag, isTimeZone, toText, type Fields } from '$core';
	import type { Action } from '$ui/workspace/actions';
	import { benchInView } from '$ui/workspace/context';
	import TextInput from '$ui/parts/TextInput.svelte';
	import { languageName } from '$ui/parts/words';
	import PictureField from './PictureField.svelte';
	import OwnWords from './OwnWords.svelte';
	import PieceList from './PieceList.svelte';
	import Prefixes from './Prefixes.svelte';
	import RobotsPaths from './RobotsPaths.svelte';
	import Setting from './Setting.svelte';
	import TypesList from './types/TypesList.svelte';
	import SiteCards from './SiteCards.svelte';

	/** The site's own settings: name, address, languages, time zone, separator, and what {site.…} gives in each language. */
	let { only, act }: { only?: 'address' | 'words' | 'pictures' | 'people'; act?: (action: Action) => Promise<void> } =
		$props();
	const bench = benchInView();
	const shows = (group: typeof only) => only === undefined || only === group;

	const site = $derived(bench.working.site);
	/** Texts that cannot be what they are typed for, as they were typed; those that can are drafts. */
	let wrongBase = $state<string | undefined>();
	let wrongTag = $state<string | undefined>();
	let wrongZone = $state<string | undefined>();
	let wrongKept = $state<string | undefined>();
	let wrongAccount = $state(false);
	const base = $derived(checkBase(wrongBase ?? site.base));
	/** The language whose words are written: '' for those that all fall back to. */
	let tongue = $state('');
	const others = $derived(site.languages.slice(1));
	const fieldsIn = $derived(tongue === '' ? site.fields : (site.translations?.[tongue] ?? {}));
	const textOf = (name: string, fields: Fields = site.fields) => {
		const value = fields[name];
		return typeof value === 'string' ? value : typeof value === 'object' && value && 'src' in value ? value.src : '';
	};
	function setField(name: string, text: string) {
		const { [name]: _old, ...rest } = site.fields;
		bench.change('site', { fields: text === '' ? rest : { ...rest, [name]: text } });
	}
	function setWord(name: string, text: string) {
		if (tongue === '') return setField(name, text);
		const { [name]: _old, ...words } = fieldsIn;
		const { [tongue]: _words, ...rest } = site.translations ?? {};
		const all = text === '' ? words : { ...words, [name]: text };
		const translations = Object.keys(all).length > 0 ? { ...rest, [tongue]: all } : rest;
		bench.change('site', { translations: Object.keys(translations).length > 0 ? translations : null });
	}
	function setPicture(name: string, src: string) {
		const { [name]: old, ...rest } = site.fields;
		// Words go with the picture they were written for.
		const alt = typeof old === 'object' && old && 'alt' in old && old.alt && old.src === src ? { alt: old.alt } : {};
		const fields: Fields = src === '' ? rest : { ...rest, [name]: { src, ...alt } };
		bench.change('site', { fields });
	}
	function setBase(typed: string) {
		const { base: whole } = checkBase(typed);
		wrongBase = whole ? undefined : typed;
		if (whole) bench.change('site', { base: whole });
	}
	function setName(text: string) {
		const name = text.trim();
		if (name) bench.change('site', { name });
	}
	function setLanguages(text: string) {
		const tags = text.split(/[\s,]+/).filter(Boolean);
		wrongTag = tags.find((tag) => !isLanguageTag(tag));
		if (wrongTag === undefined && tags.length > 0)
			bench.change('site', { languages: [...new Set(tags.map((tag) => canonicalLanguage(tag) ?? tag))] });
	}
	function setZone(text: string) {
		const zone = text.trim();
		wrongZone = zone === '' || isTimeZone(zone) ? undefined : zone;
		if (wrongZone === undefined) bench.change('site', { timeZone: zone || null });
	}
	function setKept(text: string) {
		const wanted = text.trim();
		const number = Number(wanted);
		const isOne = wanted === '' || (Number.isInteger(number) && number >= 2 && number <= 100_000);
		wrongKept = isOne ? undefined : wanted;
		if (isOne) bench.change('site', { keepReleases: wanted === '' ? null : number });
	}
	function setAccount(text: string) {
		const account = text.trim();
		wrongAccount = account !== '' && !/^@?\w{1,30}$/.test(account);
		setField('handle', account);
	}
	const WORDS = [
		['name', wording.name2, wording.whatSiteNameSaysInThis],
		['description', wording.oneLineDescription, wording.forRulesSiteDescriptionPuts],
		['tagline', wording.tagline, wording.forRulesSiteTaglinePutsItIn]
	] as const;
	const more = $derived(
		Object.keys(site.fields).filter(
			(name) =>
				typeof site.fields[name] === 'string' &&
				!['description', 'tagline', 'publisher', 'handle', 'picture', 'logo', 'icon'].includes(name)
		)
	);
	const PICTURES = [
		['picture', wording.sharePicture, wording.standsInWhereAPageHasNone],
		['logo', wording.logo, ''],
		['icon', wording.icon, wording.squareEverySizeIsMadeOfIt]
	] as const;
	const zones = Intl.supportedValuesOf('timeZone');
	let newWord = $state('');
</script>

{#if shows('address')}
	<Group name={wording.nameAddressAndLanguages}>
		<Setting name={wording.name2} hint={wording.whatSiteNameAndOgSiteName}>
			<TextInput late value={site.name} set={setName} />
		</Setting>
		<Setting name={wording.publicBaseAddress}>
			<TextInput
				class="font-mono"
				late
				value={wrongBase ?? site.base}
				set={setBase}
				aria-invalid={base.refused !== undefined}
			/>
		</Setting>
		{#if base.refused}<Refused>
				{base.refused}
				{base.guess ? wording.didYouMean(base.guess) : ''}
			</Refused>{/if}
		{#each base.asks as ask (ask)}<p class="ask mt-0.75 border-l-3 border-l-flag pl-1.75 text-sm">{ask}</p>{/each}
		<Setting name={wording.languages} hint={wording.allFallBackToTheFirst(site.languages.map(languageName).join(', '))}>
			<TextInput
				class="font-mono"
				late
				value={site.languages.join(', ')}
				set={setLanguages}
				aria-invalid={wrongTag !== undefined}
			/>
		</Setting>
		{#if wrongTag !== undefined}<Refused>
				{wording.namesNoLanguageWriteTagsSuch(wrongTag)}
			</Refused>{/if}
		<Setting name={wording.timeZone} isSet={site.timeZone !== undefined} hint={wording.datesThatNameNoOffsetAre}>
			<TextInput
				class="font-mono"
				late
				list="time-zones"
				placeholder="UTC"
				value={wrongZone ?? site.timeZone ?? ''}
				set={setZone}
				aria-invalid={wrongZone !== undefined}
			/>
		</Setting>
		<datalist id="time-zones"
			>{#each zones as zone (zone)}<option value={zone}></option>{/each}</datalist
		>
		{#if wrongZone !== undefined}<Refused>
				{wording.isNoTimeZoneThatIsKnown(wrongZone)}
			</Refused>{/if}
	</Group>
	<Group name={wording.whoSeesAndReleases}>
		<Setting
			name={wording.private}
			isSet={site.private === true}
			hint={site.private ? wording.headsPicturesAndSitemapGoTo : wording.anyoneMayReadWhatIsReleased}
		>
			<input
				type="checkbox"
				checked={site.private === true}
				onchange={(event) => bench.change('site', { private: event.currentTarget.checked || null })}
			/>
		</Setting>
		<Setting
			name={wording.editorsRelease}
			isSet={site.editorsRelease === true}
			hint={wording.whereThereArePeopleEditors}
		>
			<input
				type="checkbox"
				checked={site.editorsRelease === true}
				onchange={(event) => bench.change('site', { editorsRelease: event.currentTarget.checked || null })}
			/>
		</Setting>
		<Setting
			name={wording.releasesKept}
			isSet={site.keepReleases !== undefined}
			hint={site.keepReleases === undefined ? wording.allOfThemANumberKeepsThe : wording.olderOnesGoWithTheNext}
		>
			<TextInput
				class="font-mono"
				late
				placeholder={wording.all}
				value={wrongKept ?? (site.keepReleases === undefined ? '' : String(site.keepReleases))}
				set={setKept}
				aria-invalid={wrongKept !== undefined}
			/>
		</Setting>
		{#if wrongKept !== undefined}<Refused>
				{wording.isNoNumberFrom2OnAt(wrongKept)}
			</Refused>{/if}
	</Group>
{/if}
{#if shows('words')}
	<Group name={wording.words2}>
		{#if others.length > 0}
			<Toggles
				class="mt-2.5 text-sm"
				label={wording.wordsInWhichLanguage}
				value={tongue}
				choices={['', ...others].map((tag) => [tag, languageName(tag || (site.languages[0] ?? ''))] as const)}
				set={(tag) => (tongue = tag)}
			/>
		{/if}
		{#each WORDS as [name, label, hint] (name + tongue)}
			{#if name !== 'name' || tongue !== ''}
				<Setting name={label} {hint} isSet={textOf(name, fieldsIn) !== ''}>
					<TextInput
						lines={name === 'description' ? 2 : 1}
						placeholder={tongue === '' ? '' : name === 'name' ? site.name : textOf(name)}
						value={textOf(name, fieldsIn)}
						set={(text) => setWord(name, text)}
					/>
				</Setting>
			{/if}
		{/each}
		{#if only === undefined}
			{#each more as name (name + tongue)}
				<Setting name={`{site.${name}}`} isSet={textOf(name, fieldsIn) !== ''}>
					<TextInput
						placeholder={tongue === '' ? '' : textOf(name)}
						value={textOf(name, fieldsIn)}
						set={(text) => setWord(name, text)}
					/>
				</Setting>
			{/each}
			<form
				class="row mt-2 flex gap-2 text-sm"
				onsubmit={(event) => {
					event.preventDefault();
					const name = newWord.trim().replace(/[^\p{L}\p{N}_]+/gu, '_');
					if (name && !(name in site.fields)) setField(name, name);
					newWord = '';
				}}
			>
				<input
					class="min-w-0 flex-1 font-mono"
					aria-label={wording.nameOfAnotherWordOfTheSite}
					placeholder={wording.region}
					bind:value={newWord}
				/>
				<Button disabled={newWord.trim() === ''}>{wording.addAWordForSite}</Button>
			</form>
		{/if}
		<Setting
			name={wording.separator}
			hint={wording.betweenTwoParts(
				toText(bench.working.page.fields.title) || wording.thisPage,
				bench.working.site.separator.trim() ? ` ${bench.working.site.separator.trim()} ` : ' ',
				site.name
			)}
		>
			<input
				class="font-mono"
				maxlength="10"
				value={site.separator}
				oninput={(event) => bench.change('site', { separator: event.currentTarget.value })}
			/>
		</Setting>
	</Group>
{/if}
{#if shows('pictures')}
	<Group name={wording.pictures}>
		{#each PICTURES as [name, label, hint] (name)}
			<PictureField name={label} {hint} src={textOf(name)} set={(src) => setPicture(name, src)} />
		{/each}
	</Group>
{/if}
{#if shows('people')}
	<Group name={wording.publisherAccountsAndCards}>
		<Setting name={wording.publisher} isSet={textOf('publisher') !== ''} hint={wording.whoAnswersForTheSite}>
			<TextInput value={textOf('publisher')} set={(text) => setField('publisher', text)} />
		</Setting>
		<Setting name={wording.account} isSet={textOf('handle') !== ''} hint={wording.suchAsMerrowcoastGives}>
			<TextInput value={textOf('handle')} set={setAccount} aria-invalid={wrongAccount} />
		</Setting>
		{#if wrongAccount}<Refused>
				{wording.noCardCanCarryThatAnAccounts}
			</Refused>{/if}
		<SiteCards />
	</Group>
{/if}
{#if only === undefined}
	{#if act}<Group
			name={wording.types}
			about={wording.typeContentFields(bench.data.types.map(({ name, label }) => `${name} ${label ?? ''}`).join(' '))}
			><TypesList {act} /></Group
		>{/if}
	<Group name={wording.wordsOfTemplates} about={wording.ownWordsPieces}>
		<OwnWords />
		{#if act}<PieceList layer="site" {act} />{/if}
	</Group>
	<Group name={wording.robotsAndCustomTags} about={wording.prefixVocabularyRobotsTxt}>
		<RobotsPaths />
		<Prefixes />
	</Group>
{/if}
