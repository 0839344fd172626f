<script lang="ts">
	import ActionMenu from '../ActionMenu.svelte';
	import Button from '../Button.svelte';
	import Empty from '../Empty.svelte';
	import LayerMark from '../LayerMark.svelte';
	import type { LayerSign } from '../lines';
	import Menu from '../Menu.svelte';
	import Refused from '../Refused.svelte';
	import Select from '../select/Select.svelte';
	import Sheet from '../Sheet.svelte';
	import TextInput from '../TextInput.svelte';
	import Toggles from '../Toggles.svelte';
	import Told from '../Told.svelte';
	import Disclosure from './Disclosure.svelte';
	import Leaf from './Leaf.svelte';

	/** Every part in every state, to be looked at and tried by keys, light and dark, dense and roomy. */
	const LOOKS = ['plain', 'small', 'main', 'link'] as const;
	const SIGNS: readonly LayerSign[] = ['page', 'type', 'site', 'built-in', 'found'];
	const FEW = [
		['', 'Nothing set here'],
		'summary',
		['summary_large_image', 'A large card with a rather long name']
	] as const;
	const MANY = Array.from({ length: 40 }, (_, at) => [`n${at}`, `Choice number ${at + 1}`] as const);
	let few = $state('summary');
	let many = $state('n3');
	let text = $state('As it was typed');
	const several = 'One\nTwo';
	let isOpen = $state(false);
	let colours = $state('light');
	let view = $state('tags');
	let done = $state('');
</script>

<main class="mx-auto grid max-w-245 gap-5 p-5" id="room">
	<h1 class="font-serif text-xl">Parts</h1>
	<section class="flex flex-wrap items-center gap-3" aria-label="Buttons">
		{#each LOOKS as look (look)}
			<Button {look} type="button" data-tip="What it does">{look}</Button>
			<Button {look} type="button" disabled>{look}, not now</Button>
			<Button {look} href="#room">{look}, a link</Button>
		{/each}
	</section>
	<section class="grid justify-items-start gap-3" aria-label="Views and actions">
		<Toggles
			label="Views"
			value={view}
			choices={[
				['tags', 'Tags'],
				['', 'One whose value is empty'],
				['cards', 'All cards']
			]}
			set={(chosen) => (view = chosen)}
		/>
		<ActionMenu
			label="Actions"
			groups={[
				{ name: 'This page', items: [{ says: 'What it says', keys: 'Alt+4', run: () => (done = 'What it says') }] },
				{ name: 'Its layers', items: [{ says: 'Settings of its type', run: () => (done = 'Settings') }] }
			]}
		/>
		<p role="status">{done}</p>
		<Empty says="Nothing is here yet.">What will stand here, and how it gets there.</Empty>
	</section>
	<section class="flex flex-wrap items-center gap-3" aria-label="Selects">
		<Select aria-label="One of a few" value={few} choices={FEW} set={(value) => (few = value)} />
		<Select aria-label="One of many" value={many} choices={MANY} set={(value) => (many = value)} />
		<Select look="bare" aria-label="In the midst of words" value={few} choices={FEW} set={(value) => (few = value)} />
		<Select aria-label="Not now" value="summary" choices={FEW} set={() => undefined} disabled />
		<Select aria-label="None of them" value="sumary" choices={[...FEW, 'sumary']} set={() => undefined} aria-invalid />
		<label>With a name <Select value={few} choices={FEW} set={(value) => (few = value)} /></label>
	</section>
	<section class="grid grid-cols-2 gap-3 max-narrow:grid-cols-1" aria-label="Fields">
		<label>A text <TextInput value={text} set={(typed) => (text = typed)} /></label>
		<label>One that cannot be <TextInput aria-invalid value="http//" set={() => undefined} /></label>
		<label>Nothing yet <TextInput placeholder="What it could be" value="" set={() => undefined} /></label>
		<label>Not now <TextInput disabled value="Kept" set={() => undefined} /></label>
		<label>Several lines <TextInput lines={3} value={several} set={() => undefined} /></label>
		<p class="flex items-center gap-3">
			<label><input type="checkbox" checked /> chosen</label>
			<label><input type="checkbox" /> not chosen</label>
			<label><input type="checkbox" disabled /> not now</label>
			<label><input type="range" aria-label="How much" /></label>
		</p>
	</section>
	<section class="grid gap-2" aria-label="What is told">
		<Refused>“http//” is no address. Write it with its scheme, such as https://.</Refused>
		<Told>Release 4 is out: 23 pages.</Told>
		<p>Half of it is done <progress aria-label="How far it is" value="50" max="100"></progress></p>
		<p class="flex items-center gap-2">
			{#each SIGNS as layer (layer)}<LayerMark {layer} size={16} />{/each}
			<span class="pennant" aria-hidden="true"></span>not released
		</p>
		<p class="w-40 truncate" data-testid="cut">A text that is cut off where there is no room for all of it</p>
	</section>
	<section class="flex flex-wrap items-start gap-5" aria-label="What opens">
		<Disclosure label="Closed">What is behind it.</Disclosure>
		<Disclosure label="Open" open strong>What is behind it.</Disclosure>
		<Leaf label="A leaf"><label><input type="checkbox" /> a choice</label></Leaf>
		<Button type="button" onclick={() => (isOpen = true)}>A sheet</Button>
		<Menu
			label="A menu"
			groups={[
				{
					...{ name: 'Colours', value: colours, choices: { light: 'light', dark: 'dark' } },
					set: (value) => (colours = value)
				}
			]}
		/>
	</section>
	<Sheet bind:open={isOpen} title="A sheet">
		<p>For one thing to be done or read.</p>
		<Select aria-label="In a sheet" value={few} choices={FEW} set={(value) => (few = value)} />
	</Sheet>
</main>
