<script lang="ts">
	import { wording } from '$ui/words/en/bench';
	import Select from '$ui/parts/select/Select.svelte';
	import Button from '$ui/parts/Button.svelte';
	import { findTag, headToJson, renderHead, renderTag, purposeOf } from '$core';
	import { benchInView } from '$ui/workspace/context';
	import LayerMark from '$ui/parts/LayerMark.svelte';
	import { snippetOf, SNIPPETS, type SnippetKind } from '$ui/parts/snippets';

	/** The head as markup. Each line leads to its rule; all of it can be copied in three forms. */
	const bench = benchInView();

	let copied = $state('');
	let snippet = $state<SnippetKind>('curly');
	const head = $derived(bench.working.head);
	const lines = $derived(
		head.tags.map((tag) => ({ name: ruleOf(tag.tag.name), tag: tag.tag, parts: partsOf(renderTag(tag)) }))
	);
	const signOf = (name: string) => bench.lines.find((line) => line.tag === name)?.sign;

	/** The facts of a picture are told by the rule of the picture. */
	function ruleOf(name: string): string {
		const tag = findTag(name, bench.working.site.prefixes);
		return tag?.fact && tag.fact !== 'alt' && tag.parent ? tag.parent : name;
	}
	/** Markup in its parts, to be coloured: a name, a text, a sign. */
	function partsOf(markup: string): { kind: 'sign' | 'name' | 'text'; text: string }[] {
		return markup.split(/("[^"]*"|(?<=>)[^<>]+(?=<)|(?<![A-Za-z-])[A-Za-z-]+(?==)|<\/?[a-z]+|\/?>)/).flatMap((text) => {
			if (text === '') return [];
			const kind = text.startsWith('"')
				? 'text'
				: /^<|>$/.test(text)
					? 'sign'
					: /^[A-Za-z-]+$/.test(text)
						? 'name'
						: 'text';
			return [{ kind, text }] as const;
		});
	}
	async function copy(what: string, text: string) {
		try {
			await navigator.clipboard.writeText(text);
			copied = wording.isCopied(what);
		} catch {
			copied = wording.theBrowserDoesNotLetItBe;
		}
	}
</script>

<section class="markup" aria-label={wording.theHeadAsMarkup}>
	<div class="flex flex-wrap items-center gap-1.5 px-2.5 py-0 text-sm">
		<Button onclick={() => copy(wording.theMarkup, renderHead(head))}>{wording.copyHtml}</Button>
		<Button onclick={() => copy(wording.theJson, JSON.stringify(headToJson(head), null, 2))}>{wording.copyJson}</Button>
		<Button onclick={() => copy(wording.theSnippet, snippetOf(snippet, head))}>{wording.copySnippet}</Button>
		<label class="text-ink-soft"
			>{wording.forOne2}
			<Select
				value={snippet}
				choices={SNIPPETS.map(({ kind, name }) => [kind, name] as const)}
				set={(kind) => (snippet = kind)}
			/></label
		>
	</div>
	<p class="told min-h-5 px-2.5 py-0.5 text-sm text-ink-soft" role="status">{copied}</p>
	{#each head.before as element, at (at)}<code
			class="block border-t border-t-rule py-0.75 pr-2.5 pl-8 font-mono text-sm leading-[1.5] wrap-anywhere"
			>{element}</code
		>{/each}
	<ol>
		{#each lines as line, at (at)}
			<li>
				<button
					class="line grid w-full grid-cols-[14px_minmax(0,1fr)] gap-x-2 gap-y-0.5 border-t border-t-rule px-2.5 py-0.75 text-left hover:bg-sunk [&.chosen]:bg-sea-wash [&.chosen]:shadow-chosen [&.chosen]:hover:bg-sea-wash [&.chosen]:hover:shadow-chosen"
					class:chosen={line.name === bench.tag}
					aria-pressed={line.name === bench.tag}
					data-markup={line.tag.name}
					onclick={() => (bench.tag = line.name)}
				>
					<span class="from pt-0.75"
						>{#if signOf(line.name)}<LayerMark layer={signOf(line.name)!} />{/if}</span
					>
					<code class="font-mono text-sm leading-[1.5] wrap-anywhere"
						>{#each line.parts as part, index (index)}<span
								class={[
									part.kind,
									'[&.chosen]:bg-sea-wash [&.chosen]:shadow-chosen [&.chosen]:hover:bg-sea-wash [&.chosen]:hover:shadow-chosen [&.name]:text-sea [&.sign]:text-ink-soft'
								]}>{part.text}</span
							>{/each}</code
					>
					{#if line.name === bench.tag}<span class="purpose col-start-2 text-sm text-ink-soft in-[.chosen]:text-ink"
							>{purposeOf(line.tag)}</span
						>{/if}
				</button>
			</li>
		{/each}
	</ol>
	{#each head.after as element, at (at)}<code
			class="block border-t border-t-rule py-0.75 pr-2.5 pl-8 font-mono text-sm leading-[1.5] wrap-anywhere"
			>{element}</code
		>{/each}
</section>
