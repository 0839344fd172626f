<script lang="ts">
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
		['name', 'Name', 'What {site.name} says in this language.'],
		[
			'description',
			'One-line description',
			'For rules: {site.description} puts it in. A page without a description has none until a rule says so.'
		],
		['tagline', 'Tagline', 'For rules: {site.tagline} puts it in.']
	] as const;
	const more = $derived(
		Object.keys(site.fields).filter(
			(name) =>
				typeof site.fields[name] === 'string' &&
				!['description', 'tagline', 'publisher', 'handle', 'picture', 'logo', 'icon'].includes(name)
		)
	);
	const PICTURES = [
		['picture', 'Share picture', 'Stands in where a page has none. A path or an address.'],
		['logo', 'Logo', ''],
		['icon', 'Icon', 'Square: every size is made of it, with the web manifest.']
	] as const;
	const zones = Intl.supportedValuesOf('timeZone');
	let newWord = $state('');
</script>

{#if shows('address')}
	<Group name="Name, address and languages">
		<Setting name="Name" hint="What {'{site.name}'} and og:site_name say.">
			<TextInput late value={site.name} set={setName} />
		</Setting>
		<Setting name="Public base address">
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
				{base.guess ? `Did you mean ${base.guess}?` : ''}
			</Refused>{/if}
		{#each base.asks as ask (ask)}<p class="ask mt-0.75 border-l-3 border-l-flag pl-1.75 text-sm">{ask}</p>{/each}
		<Setting name="Languages" hint="{site.languages.map(languageName).join(', ')}. All fall back to the first.">
			<TextInput
				class="font-mono"
				late
				value={site.languages.join(', ')}
				set={setLanguages}
				aria-invalid={wrongTag !== undefined}
			/>
		</Setting>
		{#if wrongTag !== undefined}<Refused>
				“{wrongTag}” names no language. Write tags such as en for English, fr for French, pt-BR for Brazilian
				Portuguese.
			</Refused>{/if}
		<Setting
			name="Time zone"
			isSet={site.timeZone !== undefined}
			hint="Dates that name no offset are meant here. UTC without one."
		>
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
				“{wrongZone}” is no time zone that is known here. Choose one of the list, such as Europe/Paris.
			</Refused>{/if}
	</Group>
	<Group name="Who sees and releases">
		<Setting
			name="Private"
			isSet={site.private === true}
			hint={site.private
				? 'Heads, pictures and sitemap go to those with a role here and to keys that read; every head says noindex.'
				: 'Anyone may read what is released. Private asks for a right, at once, and every head says noindex from the next release on.'}
		>
			<input
				type="checkbox"
				checked={site.private === true}
				onchange={(event) => bench.change('site', { private: event.currentTarget.checked || null })}
			/>
		</Setting>
		<Setting
			name="Editors release"
			isSet={site.editorsRelease === true}
			hint="Where there are people: editors may release too, those with an area what lies in it."
		>
			<input
				type="checkbox"
				checked={site.editorsRelease === true}
				onchange={(event) => bench.change('site', { editorsRelease: event.currentTarget.checked || null })}
			/>
		</Setting>
		<Setting
			name="Releases kept"
			isSet={site.keepReleases !== undefined}
			hint={site.keepReleases === undefined
				? 'All of them. A number keeps the newest; older ones go with the next release, for good.'
				: 'Older ones go with the next release, for good: there is no way back to them.'}
		>
			<TextInput
				class="font-mono"
				late
				placeholder="all"
				value={wrongKept ?? (site.keepReleases === undefined ? '' : String(site.keepReleases))}
				set={setKept}
				aria-invalid={wrongKept !== undefined}
			/>
		</Setting>
		{#if wrongKept !== undefined}<Refused>
				“{wrongKept}” is no number from 2 on. At least the newest two are kept; leave it empty to keep all.
			</Refused>{/if}
	</Group>
{/if}
{#if shows('words')}
	<Group name="Words">
		{#if others.length > 0}
			<Toggles
				class="mt-2.5 text-sm"
				label="Words in which language"
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
					aria-label="Name of another word of the site"
					placeholder="region"
					bind:value={newWord}
				/>
				<Button disabled={newWord.trim() === ''}>Add a word for {'{site.…}'}</Button>
			</form>
		{/if}
		<Setting
			name="Separator"
			hint={`Between two parts: ${toText(bench.working.page.fields.title) || 'This page'}${bench.working.site.separator.trim() ? ` ${bench.working.site.separator.trim()} ` : ' '}${site.name}`}
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
	<Group name="Pictures">
		{#each PICTURES as [name, label, hint] (name)}
			<PictureField name={label} {hint} src={textOf(name)} set={(src) => setPicture(name, src)} />
		{/each}
	</Group>
{/if}
{#if shows('people')}
	<Group name="Publisher, accounts and cards">
		<Setting name="Publisher" isSet={textOf('publisher') !== ''} hint="Who answers for the site.">
			<TextInput value={textOf('publisher')} set={(text) => setField('publisher', text)} />
		</Setting>
		<Setting name="Account" isSet={textOf('handle') !== ''} hint="Such as @merrowcoast; gives twitter:site.">
			<TextInput value={textOf('handle')} set={setAccount} aria-invalid={wrongAccount} />
		</Setting>
		{#if wrongAccount}<Refused>
				No card can carry that: an account’s name holds letters, digits and underscores, at most 30, with or without @ .
			</Refused>{/if}
		<SiteCards />
	</Group>
{/if}
{#if only === undefined}
	{#if act}<Group
			name="Types"
			about="type content fields {bench.data.types.map(({ name, label }) => `${name} ${label ?? ''}`).join(' ')}"
			><TypesList {act} /></Group
		>{/if}
	<Group name="Words of templates" about="own words pieces">
		<OwnWords />
		{#if act}<PieceList layer="site" {act} />{/if}
	</Group>
	<Group name="Robots and custom tags" about="prefix vocabulary robots.txt">
		<RobotsPaths />
		<Prefixes />
	</Group>
{/if}
