<script lang="ts">
	import { wording } from '$ui/words/en/settings';
	import Select from '$ui/parts/select/Select.svelte';
	import Button from '$ui/parts/Button.svelte';
	import {
		isMeant,
		isTimeZone,
		wordsIn,
		type Field,
		type FieldValue,
		type Person,
		type PictureMention,
		type ValueWords
	} from '$core';
	import { benchInView } from '$ui/workspace/context';
	import TextInput from '$ui/parts/TextInput.svelte';
	import PictureField from './PictureField.svelte';
	import { dateOf, joinDate, listOf, numberOf, whyNotLink, whyNotPicture } from './fieldValues';

	/** One field of a page, written in the form of its kind. */
	let {
		field,
		value,
		set
	}: {
		field: Field;
		value: FieldValue | undefined;
		/** Undefined to empty it. */
		set: (value: FieldValue | undefined) => void;
	} = $props();
	const bench = benchInView();

	const name = $derived(field.label ?? field.name);
	const text = $derived(typeof value === 'string' || typeof value === 'number' ? String(value) : '');
	const setText = (written: string) => set(written === '' ? undefined : written);
	let wrong = $state<string | undefined>();

	function setNumber(written: string) {
		const number = numberOf(written);
		wrong = number === undefined && written.trim() !== '' ? wording.isNoNumber(written) : undefined;
		if (wrong === undefined) set(number);
	}
	function setLink(written: string) {
		wrong = written === '' ? undefined : whyNotLink(written.trim());
		if (wrong === undefined) setText(written.trim());
	}
	const date = $derived(dateOf(text));
	const zone = $derived(
		bench.working.site.timeZone && isTimeZone(bench.working.site.timeZone) ? bench.working.site.timeZone : 'UTC'
	);
	const setDate = (day: string, time: string) => set(joinDate(day, time, date.offset));

	const person = $derived((typeof value === 'string' ? { name: value } : (value ?? { name: '' })) as Partial<Person>);
	function setPerson(change: Partial<Person>) {
		const all = Object.entries({ ...person, ...change }).filter(([, one]) => one !== undefined && one !== '');
		const next = Object.fromEntries(all) as Partial<Person>;
		set(all.length === 0 ? undefined : { ...next, name: next.name ?? '' });
	}
	const PARTS = [
		['name', wording.name2, ''],
		['handle', wording.account, '@name'],
		['address', wording.address, 'https://…']
	] as const;

	const people = $derived(
		(Array.isArray(value) ? value : value === undefined ? [] : [value]).map((one) =>
			typeof one === 'object' && one !== null && 'name' in one ? one : { name: String(one) }
		) as Person[]
	);
	const setPeople = (all: readonly Person[]) => set(all.length > 0 ? all : undefined);
	let newPerson = $state('');

	/** What the page that is named is called, where there is one. */
	const named = $derived.by(() => {
		const other = bench.data.others?.find(({ path }) => path === text);
		return other && String(other.fields.title ?? other.path);
	});
	let learning: ReturnType<typeof setTimeout> | undefined;
	/** Once the hand rests. */
	function learn(path: string) {
		clearTimeout(learning);
		if (path.startsWith('/')) learning = setTimeout(() => void bench.learn(path), 300);
	}

	const isOdd = $derived(
		field.kind === 'choice' && text !== '' && !field.words?.some((option) => isMeant(option, text))
	);
	const sayOption = ({ is, words }: ValueWords) =>
		wordsIn(words, bench.working.page.language ?? '', bench.working.site.languages[0] ?? '') ?? String(is);

	const mention = $derived(
		(typeof value === 'string'
			? { src: value }
			: value && typeof value === 'object'
				? value
				: { src: '' }) as PictureMention
	);
	function setMention(change: Partial<PictureMention>) {
		const { src, alt } = { ...mention, ...change };
		// Words go with the picture they were written for.
		const words = change.src !== undefined && change.src !== mention.src ? undefined : alt;
		set(src === '' ? undefined : { src, ...(words && { alt: words }) });
	}
	const mentions = $derived(
		(Array.isArray(value) ? value : []).map((one) =>
			typeof one === 'object' ? one : { src: String(one) }
		) as PictureMention[]
	);
	const setMentions = (all: readonly PictureMention[]) => set(all.length > 0 ? all : undefined);
	const replaced = (at: number, change: Partial<PictureMention>) =>
		setMentions(mentions.map((one, index) => (index === at ? { ...one, ...change } : one)));
	function moved(at: number) {
		const all = [...mentions];
		const [one] = all.splice(at, 1);
		all.splice(at - 1, 0, one as PictureMention);
		setMentions(all);
	}
	let newPicture = $state('');
</script>

<div class="field [&>input]:w-full [&>textarea]:w-full" data-field={field.name}>
	{#if field.kind === 'picture'}
		<PictureField {name} src={mention.src} set={(src) => setMention({ src })} />
		{#if mention.src}
			<label class="mt-0.75 grid grid-cols-[76px_1fr] items-center gap-2 text-sm text-ink-soft"
				>{wording.itsWordsAltText} <TextInput value={mention.alt ?? ''} set={(alt) => setMention({ alt })} /></label
			>
		{/if}
	{:else if field.kind === 'person'}
		<span class="name block text-sm font-semibold">{name}</span>
		{#each PARTS as [part, label, placeholder] (part)}
			<label class="mt-0.75 grid grid-cols-[76px_1fr] items-center gap-2 text-sm text-ink-soft"
				>{label}
				<TextInput
					aria-label="{name}: {label.toLowerCase()}"
					{placeholder}
					value={person[part] ?? ''}
					set={(written) => setPerson({ [part]: written })}
				/></label
			>
		{/each}
	{:else if field.kind === 'pictures'}
		<span class="name block text-sm font-semibold">{name}</span>
		{#each mentions as one, at (at)}
			<div class="row mt-0.75 flex items-center gap-1.5 text-sm [&>input]:min-w-0 [&>input]:flex-1">
				<TextInput
					class="font-mono"
					aria-label={wording.pathOrAddress(name, at + 1)}
					value={one.src}
					set={(src) => replaced(at, { src })}
				/>
				<TextInput
					aria-label={wording.itsWords(name, at + 1)}
					placeholder={wording.itsWords2}
					value={one.alt ?? ''}
					set={(alt) => replaced(at, { alt })}
				/>
				<Button disabled={at === 0} aria-label={wording.furtherUp(name, at + 1)} onclick={() => moved(at)}>↑</Button>
				<Button
					aria-label={wording.removePictureOf(at + 1, name)}
					onclick={() => setMentions(mentions.filter((_, index) => index !== at))}>×</Button
				>
			</div>
			{#if whyNotPicture(one.src)}<p class="mt-0.75 border-l-3 border-l-gone pl-1.75 text-sm" role="alert">
					{whyNotPicture(one.src)}
				</p>{/if}
		{/each}
		<form
			class="row mt-0.75 flex items-center gap-1.5 text-sm [&>input]:min-w-0 [&>input]:flex-1"
			onsubmit={(event) => {
				event.preventDefault();
				const src = newPicture.trim();
				wrong = whyNotPicture(src);
				if (wrong !== undefined || src === '') return;
				setMentions([...mentions, { src }]);
				newPicture = '';
			}}
		>
			<input
				class="font-mono"
				aria-label={wording.anotherPictureFor(name)}
				placeholder="/pictures/…"
				bind:value={newPicture}
			/>
			<Button disabled={newPicture.trim() === ''}>{wording.add}</Button>
		</form>
	{:else if field.kind === 'flag'}
		<label class="name block text-sm font-semibold" for="field-{field.name}">{name}</label>
		<Select
			class="w-full"
			id="field-{field.name}"
			value={value === true ? 'yes' : value === false ? 'no' : ''}
			choices={[
				['', wording.notSaid],
				['yes', wording.yes],
				['no', wording.no]
			]}
			set={(said) => set(said === '' ? undefined : said === 'yes')}
		/>
	{:else if field.kind === 'choice' && field.words?.length}
		<label class="name block text-sm font-semibold" for="field-{field.name}">{name}</label>
		<Select
			class="w-full"
			id="field-{field.name}"
			value={text}
			aria-invalid={isOdd}
			choices={[
				['', wording.notSaid],
				...field.words.map((option) => [String(option.is), sayOption(option)] as const),
				...(isOdd ? [text] : [])
			]}
			set={setText}
		/>
		{#if isOdd}<p class="mt-0.75 border-l-3 border-l-gone pl-1.75 text-sm" role="alert">
				{wording.isNoneOfWhatItCanBe(text)}
			</p>{/if}
	{:else if field.kind === 'people'}
		<span class="name block text-sm font-semibold">{name}</span>
		{#each people as one, at (at)}
			<div class="row mt-0.75 flex items-center gap-1.5 text-sm [&>input]:min-w-0 [&>input]:flex-1">
				<TextInput
					aria-label={wording.name(name, at + 1)}
					value={one.name}
					set={(written) =>
						setPeople(people.map((other, index) => (index === at ? { ...other, name: written } : other)))}
				/>
				<Button
					aria-label={wording.takeOff(one.name || wording.person(at + 1), name)}
					onclick={() => setPeople(people.filter((_, index) => index !== at))}>×</Button
				>
			</div>
		{/each}
		<form
			class="row mt-0.75 flex items-center gap-1.5 text-sm [&>input]:min-w-0 [&>input]:flex-1"
			onsubmit={(event) => {
				event.preventDefault();
				if (newPerson.trim() === '') return;
				setPeople([...people, { name: newPerson.trim() }]);
				newPerson = '';
			}}
		>
			<input aria-label={wording.anotherPersonFor(name)} placeholder={wording.name2} bind:value={newPerson} />
			<Button disabled={newPerson.trim() === ''}>{wording.add}</Button>
		</form>
	{:else if field.kind === 'date'}
		<span class="name block text-sm font-semibold">{name}</span>
		{#if text !== '' && date.day === ''}
			<TextInput aria-label={name} value={text} set={setText} aria-invalid={true} />
			<p class="mt-0.75 border-l-3 border-l-gone pl-1.75 text-sm" role="alert">
				{wording.isNoDateThatTagsCanCarry(text)}
			</p>
		{:else}
			<div class="row mt-0.75 flex items-center gap-1.5 text-sm [&>input]:min-w-0 [&>input]:flex-1">
				<TextInput type="date" aria-label={wording.day(name)} value={date.day} set={(day) => setDate(day, date.time)} />
				<TextInput
					type="time"
					aria-label={wording.time(name)}
					disabled={date.day === ''}
					value={date.time}
					set={(time) => setDate(date.day, time)}
				/>
				<span class="text-ink-soft">{date.offset ?? zone}</span>
			</div>
		{/if}
	{:else if field.kind === 'rich'}
		<span class="name block text-sm font-semibold">{name}</span>
		{#await import('$ui/rich/RichText.svelte')}
			<p class="text-ink-soft">…</p>
		{:then { default: RichText }}
			<RichText id="field-{field.name}" {name} value={text} set={setText} />
		{/await}
	{:else}
		<label class="name block text-sm font-semibold" for="field-{field.name}">{name}</label>
		{#if field.kind === 'list' || field.kind === 'pages'}
			<TextInput
				id="field-{field.name}"
				lines={3}
				placeholder={field.kind === 'pages' ? wording.aPathOnEachLineWalksGannet : wording.oneOnALine}
				value={Array.isArray(value)
					? value.map((one) => (typeof one === 'object' ? '' : String(one))).join('\n')
					: text}
				set={(written) => {
					set(listOf(written));
					if (field.kind === 'pages') for (const path of listOf(written) ?? []) learn(String(path));
				}}
			/>
		{:else if field.kind === 'page'}
			<TextInput
				id="field-{field.name}"
				class="font-mono"
				placeholder="/walks/gannet-head"
				value={text}
				set={(written) => {
					setText(written.trim());
					learn(written.trim());
				}}
			/>
			{#if named}<p class="text-ink-soft">{named}</p>{/if}
		{:else if field.kind === 'number'}
			<TextInput id="field-{field.name}" value={text} set={setNumber} aria-invalid={wrong !== undefined} />
		{:else if field.kind === 'link'}
			<TextInput
				id="field-{field.name}"
				class="font-mono"
				placeholder="https://…"
				value={text}
				set={setLink}
				aria-invalid={wrong !== undefined}
			/>
		{:else}
			<TextInput id="field-{field.name}" lines={field.name === 'summary' ? 3 : 1} value={text} set={setText} />
		{/if}
		{#if wrong}<p class="mt-0.75 border-l-3 border-l-gone pl-1.75 text-sm" role="alert">
				{wording.itIsNotKeptAsItStands(wrong)}
			</p>{/if}
	{/if}
</div>
