<script lang="ts">
	import { findTag, headToJson, renderHead, renderTag } from '$core';
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
			copied = `${what} is copied.`;
		} catch {
			copied = 'The browser does not let it be copied. Mark it and copy it by hand.';
		}
	}
</script>

<section class="markup" aria-label="The head as markup">
	<div class="tools">
		<button class="plain-button" onclick={() => copy('The markup', renderHead(head))}>Copy HTML</button>
		<button class="plain-button" onclick={() => copy('The JSON', JSON.stringify(headToJson(head), null, 2))}
			>Copy JSON</button
		>
		<button class="plain-button" onclick={() => copy('The snippet', snippetOf(snippet, head))}>Copy snippet</button>
		<label class="quiet"
			>for <select bind:value={snippet}>
				{#each SNIPPETS as { kind, name } (kind)}<option value={kind}>{name}</option>{/each}
			</select></label
		>
	</div>
	<p class="quiet told" role="status">{copied}</p>
	{#each head.before as element, at (at)}<code class="extra mono">{element}</code>{/each}
	<ol>
		{#each lines as line, at (at)}
			<li>
				<button
					class="line"
					class:chosen={line.name === bench.tag}
					aria-pressed={line.name === bench.tag}
					data-markup={line.tag.name}
					onclick={() => (bench.tag = line.name)}
				>
					<span class="from"
						>{#if signOf(line.name)}<LayerMark layer={signOf(line.name)!} />{/if}</span
					>
					<code class="mono"
						>{#each line.parts as part, index (index)}<span class={part.kind}>{part.text}</span>{/each}</code
					>
					{#if line.name === bench.tag}<span class="purpose">{line.tag.purpose}</span>{/if}
				</button>
			</li>
		{/each}
	</ol>
	{#each head.after as element, at (at)}<code class="extra mono">{element}</code>{/each}
</section>

<style>
	.tools {
		display: flex;
		flex-wrap: wrap;
		gap: 6px;
		align-items: center;
		padding: 0 10px;
		font-size: 13px;
	}
	.told {
		min-height: 20px;
		padding: 2px 10px;
		font-size: 12.5px;
	}
	.line {
		display: grid;
		grid-template-columns: 14px minmax(0, 1fr);
		gap: 2px 8px;
		width: 100%;
		border-top: 1px solid var(--rule);
		padding: 3px 10px;
		text-align: left;
	}
	.line:hover {
		background: var(--sheet-sunk);
	}
	.chosen,
	.chosen:hover {
		background: var(--sea-wash);
		box-shadow: inset 3px 0 0 var(--sea);
	}
	.from {
		padding-top: 3px;
	}
	code {
		overflow-wrap: anywhere;
		font-size: 12.5px;
		line-height: 1.5;
	}
	.extra {
		display: block;
		border-top: 1px solid var(--rule);
		padding: 3px 10px 3px 32px;
	}
	.sign {
		color: var(--ink-soft);
	}
	.name {
		color: var(--sea);
	}
	.purpose {
		grid-column: 2;
		font-size: 12.5px;
		color: var(--ink-soft);
	}
	.chosen .purpose {
		color: var(--ink);
	}
</style>
