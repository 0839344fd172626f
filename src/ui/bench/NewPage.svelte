<script lang="ts">
	import { wording } from '$ui/words/en/bench';
	import Select from '$ui/parts/select/Select.svelte';
	import Button from '$ui/parts/Button.svelte';
	import Refused from '$ui/parts/Refused.svelte';
	import { call, isRefused } from '$ui/client';
	import Sheet from '$ui/parts/Sheet.svelte';
	import { languageName } from '$ui/parts/words';
	import Setting from '$ui/settings/Setting.svelte';
	import { pathOfTitle } from './paths';

	/** A page is made: by its title, its type and its path; as another's version in a language where one is named. */
	let {
		open = $bindable(),
		site,
		types,
		languages,
		usual,
		versionOf,
		language = '',
		made
	}: {
		open: boolean;
		site: string;
		types: readonly { readonly name: string; readonly label?: string }[];
		languages: readonly string[];
		/** The type it has unless another is chosen. */
		usual: string;
		versionOf?: { readonly path: string; readonly title: string } | undefined;
		language?: string;
		made: (path: string) => void;
	} = $props();

	let title = $state('');
	let path = $state('');
	let isOwnPath = $state(false);
	let chosen = $state<string | undefined>();
	let spoken = $state<string | undefined>();
	let refused = $state('');
	$effect(() => {
		if (!open) [title, path, isOwnPath, chosen, spoken, refused] = ['', '', false, undefined, undefined, ''];
	});
	const type = $derived(chosen ?? usual);
	const tongue = $derived(spoken ?? language);
	const stands = $derived(
		isOwnPath
			? path
			: versionOf && title === ''
				? `/${tongue.toLowerCase()}${versionOf.path === '/' ? '' : versionOf.path}`
				: pathOfTitle(title, versionOf ? `/${tongue.toLowerCase()}` : '')
	);

	async function make(event: SubmitEvent) {
		event.preventDefault();
		const done = await call('POST /sites/{site}/pages', {
			site,
			body: {
				...{ do: 'add', path: stands.trim(), type, title: title.trim() },
				...(tongue && { language: tongue }),
				...(versionOf && { versionOf: versionOf.path })
			}
		});
		if (isRefused(done)) return void (refused = done.refused);
		open = false;
		made(done.path);
	}
</script>

<Sheet bind:open title={versionOf ? wording.aVersionOfIn(versionOf.path, languageName(tongue)) : wording.aNewPage}>
	<form onsubmit={make}>
		<Setting name={wording.title} hint={versionOf ? wording.there(versionOf.title) : ''}>
			<!-- svelte-ignore a11y_autofocus -->
			<input autofocus bind:value={title} />
		</Setting>
		<Setting name={wording.path}>
			<input
				class="font-mono"
				value={stands}
				oninput={(event) => {
					path = event.currentTarget.value;
					isOwnPath = path !== '';
				}}
			/>
		</Setting>
		<Setting name={wording.type}>
			<Select
				value={type}
				choices={types.map((one) => [one.name, one.label ?? one.name] as const)}
				set={(name) => (chosen = name)}
			/>
		</Setting>
		{#if languages.length > 1 || versionOf}
			<Setting name={wording.language}>
				<Select
					value={tongue}
					choices={[
						...(versionOf ? [] : [['', wording.asTheSitesFirst(languageName(languages[0] ?? ''))] as const]),
						...[...new Set([...languages, ...(language ? [language] : [])])].map(
							(tag) => [tag, languageName(tag)] as const
						)
					]}
					set={(tag) => (spoken = tag)}
				/>
			</Setting>
		{/if}
		<p class="mt-2.5 text-sm text-ink-soft">{wording.itBeginsAsADraftNobodySees}</p>
		{#if refused}<Refused>{refused}</Refused>{/if}
		<p class="actions mt-3 flex gap-2.5">
			<Button look="main" disabled={title.trim() === '' || !stands.startsWith('/')}>{wording.makeThePage}</Button>
			<Button type="button" onclick={() => (open = false)}>{wording.leaveIt}</Button>
		</p>
	</form>
</Sheet>
