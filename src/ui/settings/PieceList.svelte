<script lang="ts">
	import { wording } from '$ui/words/en/settings';
	import Disclosure from '$ui/parts/shown/Disclosure.svelte';
	import Button from '$ui/parts/Button.svelte';
	import { untrack } from 'svelte';
	import { checkTemplate, formatIssue, piecesFor, TAG_NAMES } from '$core';
	import type { Action } from '$ui/workspace/actions';
	import { benchInView } from '$ui/workspace/context';
	import { isOwnName } from './fieldValues';
	import NewName from './NewName.svelte';
	import TemplateField from '$ui/fields/TemplateField.svelte';

	/** Pieces: templates with a name that others use. Of the site, or of the type in view. */
	let { layer, act }: { layer: 'site' | 'type'; act: (action: Action) => Promise<void> } = $props();
	const bench = benchInView();

	const owner = $derived(layer === 'site' ? bench.working.site : bench.working.type);
	const pieces = $derived(Object.entries(owner?.pieces ?? {}));
	/** Open at first where there are some; then as one leaves it. */
	let isOpen = $state(untrack(() => pieces.length > 0));
	/** The piece that gets another name, and that name. */
	let renaming = $state<string | undefined>();
	let newName = $state('');

	const keep = (all: Readonly<Record<string, string>>) =>
		bench.change(layer, { pieces: Object.keys(all).length > 0 ? all : null });
	const write = (key: string, text: string) => keep({ ...owner?.pieces, [key]: text });
	const issuesOf = (key: string, text: string) => {
		const { site, type } = bench.working;
		return checkTemplate(text, {
			...{ fields: bench.fieldsAt(layer), siteFields: Object.keys(site.fields), tagNames: TAG_NAMES },
			...{ words: Object.keys(site.words ?? {}), languages: site.languages, pieceName: key },
			pieces: piecesFor(site, layer === 'site' ? undefined : type) ?? new Map<string, string>()
		});
	};
	const around = (key: string) => ({
		...{ label: wording.thePiece(key), describedBy: `piece-${layer}-${key}`, placeholder: wording.wordsAndPageTitle },
		variables: () => bench.variablesFor(layer).filter((one) => one.name !== `piece.${key}`),
		show: bench.show,
		changed: (text: string) => write(key, text),
		keep: () => undefined,
		takeBack: () => false
	});
	function rename(event: SubmitEvent) {
		event.preventDefault();
		if (renaming === undefined || !isOwnName(newName.trim())) return;
		const [piece, to] = [renaming, newName.trim()];
		renaming = undefined;
		void act({ do: 'renamePiece', name: layer === 'site' ? '' : (bench.working.type?.name ?? ''), piece, to });
	}
</script>

<div data-pieces={layer}>
	<Disclosure strong class="mt-3 text-sm" bind:open={isOpen} label={wording.pieces}>
		<p class="text-ink-soft">
			{wording.aPieceIsATemplateWithA} <span class="font-mono">{'{piece.price}'}</span>
			{wording.printsWhatItComesTo}
			{#if layer === 'type'}{wording.oneOfThisTypeGoesBeforeThe}{/if}
		</p>
		{#each pieces as [key, text] (key)}
			{@const issues = issuesOf(key, text)}
			<div class="one mt-2" data-piece={key}>
				<div class="row mt-1 flex items-center gap-2">
					<button
						class="name flex-1 text-left font-mono underline-offset-3 [text-decoration:underline_dotted]"
						data-tip={wording.anotherNameForIt}
						onclick={() => ([renaming, newName] = [renaming === key ? undefined : key, key])}>{`{piece.${key}}`}</button
					>
					<Button
						aria-label={wording.takeAwayThePiece(key)}
						onclick={() => keep(Object.fromEntries(pieces.filter(([other]) => other !== key)))}>×</Button
					>
				</div>
				{#if renaming === key}
					<form class="row mt-1 flex items-center gap-2" onsubmit={rename}>
						<input
							class="min-w-0 flex-1 font-mono"
							aria-label={wording.anotherNameForThePiece(key)}
							bind:value={newName}
						/>
						<Button disabled={!isOwnName(newName.trim()) || newName.trim() === key}>{wording.rename}</Button>
					</form>
				{/if}
				<TemplateField {text} pieces={bench.templateParts(text)} errors={issues} kept={0} around={around(key)} />
				<p class="text-ink-soft" id="piece-{layer}-{key}">
					{#if issues[0]}{formatIssue(issues[0], text)}
					{:else}{wording.here} <span class="font-serif">{bench.show(text) || wording.nothing}</span>{/if}
				</p>
			</div>
		{/each}
		<NewName
			label={wording.nameOfANewPiece}
			placeholder={wording.price}
			taken={(name) => pieces.some(([known]) => known === name)}
			add={(name) => keep({ ...owner?.pieces, [name]: '' })}
		/>
	</Disclosure>
</div>
