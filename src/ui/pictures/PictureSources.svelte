<script lang="ts">
	import { wording } from '$ui/words/en/pictures';
	import Select from '$ui/parts/select/Select.svelte';
	import Button from '$ui/parts/Button.svelte';
	import { describeSkipped, pictureOfValue, type PictureSource, type RuleBody, type Shape } from '$core';
	import type { EditableLayer } from '$ui/parts/words';
	import { benchInView } from '$ui/workspace/context';
	import ShapeChoice from './ShapeChoice.svelte';

	/** The ordered list of sources of a picture rule, each with what it gives on the page in view. */
	let { layer, body }: { layer: EditableLayer; body: Extract<RuleBody, { kind: 'pictures' }> } = $props();
	const bench = benchInView();

	const NAMES = {
		lead: wording.thePagesLeadPicture,
		body: wording.theFirstInItsText,
		author: wording.theAuthorsPicture,
		type: wording.theTypesOwnPicture,
		site: wording.theSitesSharePicture,
		composed: wording.theSharePictureMadeFromThe
	};
	const nameOf = (source: PictureSource) =>
		source.from === 'file'
			? isOwn(source)
				? wording.fromTheLibrary
				: wording.theFile(source.src.split('/').at(-1) ?? '')
			: source.from === 'field'
				? wording.theField(source.name)
				: NAMES[source.from];
	/** A source that stands twice, as a site file may have it, has two keys. */
	function keyOf(source: PictureSource, at: number): string {
		const bare = (one: PictureSource) =>
			one.from === 'file' ? one.src : one.from === 'field' ? `field ${one.name}` : one.from;
		const before = body.sources.slice(0, at).filter((other) => bare(other) === bare(source)).length;
		return `${bare(source)} ${before}`;
	}
	const isOwn = (source: PictureSource) => source.from === 'file' && source.src.startsWith('/media/');
	function setAlt(at: number, alt: string) {
		set(
			body.sources.map((source, index) => {
				if (index !== at || source.from !== 'file') return source;
				return { from: 'file', src: source.src, ...(alt !== '' && { alt }) };
			})
		);
	}

	let file = $state('');
	let dragged = $state<number | undefined>();

	const set = (sources: readonly PictureSource[]) => bench.propose(layer, { ...body, sources });
	function move(from: number, to: number) {
		if (to < 0 || to >= body.sources.length) return;
		const sources = [...body.sources];
		sources.splice(to, 0, ...sources.splice(from, 1));
		set(sources);
	}
	function onkeydown(event: KeyboardEvent, at: number) {
		if (!event.altKey || (event.key !== 'ArrowUp' && event.key !== 'ArrowDown')) return;
		event.preventDefault();
		const to = at + (event.key === 'ArrowUp' ? -1 : 1);
		const list = (event.currentTarget as HTMLElement).parentElement;
		move(at, to);
		setTimeout(() => (list?.children[to] as HTMLElement | undefined)?.focus());
	}
	/** Pointer: an item dropped on another takes its place. */
	const draggable = (item: HTMLElement) => {
		const at = () => Number(item.dataset.at);
		const start = () => (dragged = at());
		const over = (event: DragEvent) => event.preventDefault();
		const drop = () => {
			if (dragged !== undefined && dragged !== at()) move(dragged, at());
			dragged = undefined;
		};
		item.addEventListener('dragstart', start);
		item.addEventListener('dragover', over);
		item.addEventListener('drop', drop);
		return () => {
			item.removeEventListener('dragstart', start);
			item.removeEventListener('dragover', over);
			item.removeEventListener('drop', drop);
		};
	};
	/** What a source gives here, in words, and whether it is the one that is used. */
	function outcomeOf(source: PictureSource, at: number): string {
		const trace = tried[at];
		const step = trace?.steps[0];
		const value = trace?.winner === 0 ? pictureOfValue(trace.value) : undefined;
		if (value)
			return [
				isOwn(source) ? undefined : value.src.split('/').at(-1),
				value.width && `${value.width} × ${value.height}`
			]
				.filter(Boolean)
				.join(', ');
		const skipped = step?.outcome.kind === 'no-picture' ? step.outcome.skipped[0] : undefined;
		return skipped ? describeSkipped(skipped).replace(/^[^:]*: /, '') : 'none';
	}
	/** What became of each source by itself, worked out once for each change. */
	const tried = $derived(
		body.sources.map((source) => {
			// Whole: what a source gives is judged before it is cut.
			const { shapes: _shapes, ...whole } = body;
			return bench.working.tryPictures([source], whole);
		})
	);
	const used = $derived(tried.findIndex((trace) => trace?.winner === 0));
	const others = $derived(
		(Object.keys(NAMES) as (keyof typeof NAMES)[]).filter(
			(from) => !body.sources.some((source) => source.from === from)
		)
	);
	const fields = $derived(
		(bench.working.type?.fields ?? []).filter(
			(field) =>
				(field.kind === 'picture' || field.kind === 'pictures') &&
				!body.sources.some((source) => source.from === 'field' && source.name === field.name)
		)
	);
	function add(chosen: string) {
		if (chosen.startsWith('field ')) set([...body.sources, { from: 'field', name: chosen.slice(6) }]);
		else if (chosen) set([...body.sources, { from: chosen as keyof typeof NAMES }]);
	}
	const limit = (name: 'minWidth' | 'minHeight') => (event: Event & { currentTarget: HTMLInputElement }) => {
		const value = Math.floor(Number(event.currentTarget.value));
		const { [name]: _old, ...rest } = body.limits ?? {};
		const limits = value > 0 ? { ...rest, [name]: value } : rest;
		const { limits: _all, ...bare } = body;
		bench.propose(layer, { ...bare, ...(Object.keys(limits).length > 0 && { limits }) });
	};
	function setShapes(shapes: readonly Shape[]) {
		const { shapes: _old, ...bare } = body;
		bench.propose(layer, { ...bare, ...(shapes.length > 0 && { shapes }) });
	}
	const count = (event: Event & { currentTarget: HTMLInputElement }) => {
		const value = Math.min(20, Math.max(1, Math.floor(Number(event.currentTarget.value)) || 1));
		const { count: _old, ...bare } = body;
		bench.propose(layer, { ...bare, ...(value > 1 && { count: value }) });
	};
</script>

<p class="lead text-sm text-ink-soft">{wording.theFirstThatFitsIsUsedAlt}</p>
<ol aria-label={wording.pictureSourcesInOrder}>
	{#each body.sources as source, at (keyOf(source, at))}
		<!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
		<li
			class="mt-0.75 flex cursor-grab items-center gap-1 rounded-sm border border-rule bg-sheet py-0.75 pr-1 pl-1.5 [&.used]:border-sea"
			tabindex="0"
			draggable="true"
			data-at={at}
			class:used={at === used}
			onkeydown={(event) => onkeydown(event, at)}
			{@attach draggable}
		>
			<span class="number w-4 font-mono text-xs text-ink-soft">{at + 1}</span>
			{#if source.from === 'file' && isOwn(source)}<img
					class="h-9 w-13.5 flex-none object-cover"
					src={source.src}
					alt=""
				/>{/if}
			<span class="what min-w-0 flex-1 leading-[1.25]"
				>{nameOf(source)}<span class="gives block truncate text-xs text-ink-soft"
					>{outcomeOf(source, at)}{at === used ? wording.used : ''}</span
				>
				{#if source.from === 'file'}<input
						class="alt w-full font-serif text-sm"
						aria-label={wording.altTextOf(nameOf(source))}
						placeholder={wording.whatItShowsInWords}
						value={source.alt ?? ''}
						oninput={(event) => setAlt(at, event.currentTarget.value)}
					/>{/if}</span
			>
			<Button
				look="small"
				aria-label={wording.moveUp(nameOf(source))}
				disabled={at === 0}
				onclick={() => move(at, at - 1)}>↑</Button
			>
			<Button
				look="small"
				aria-label={wording.moveDown(nameOf(source))}
				disabled={at === body.sources.length - 1}
				onclick={() => move(at, at + 1)}>↓</Button
			>
			<Button
				look="small"
				aria-label={wording.takeOut(nameOf(source))}
				onclick={() => set(body.sources.filter((_, other) => other !== at))}>×</Button
			>
		</li>
	{/each}
</ol>
<div class="more mt-1.5 flex flex-wrap items-center gap-x-2.5 gap-y-1.5 text-sm">
	{#if others.length + fields.length > 0}
		<Select
			aria-label={wording.addASource}
			value=""
			choices={[
				['', wording.addASource2],
				...others.map((from) => [from, NAMES[from]] as const),
				...fields.map((field) => [`field ${field.name}`, wording.theField(field.label ?? field.name)] as const)
			]}
			set={add}
		/>
	{/if}
	<form
		class="min-w-37.5 flex-1"
		onsubmit={(event) => {
			event.preventDefault();
			if (file.trim()) set([...body.sources, { from: 'file', src: file.trim() }]);
			file = '';
		}}
	>
		<input
			class="w-full"
			aria-label={wording.addAFileByItsPathOr}
			placeholder={wording.picturesEnterAddsAFile}
			bind:value={file}
		/>
	</form>
	<ShapeChoice shapes={body.shapes ?? []} set={setShapes} />
	<label
		>{wording.leastWidth}
		<input class="w-15.5" type="number" min="0" value={body.limits?.minWidth ?? ''} onchange={limit('minWidth')} /> px</label
	>
	<label
		>{wording.leastHeight}
		<input class="w-15.5" type="number" min="0" value={body.limits?.minHeight ?? ''} onchange={limit('minHeight')} /> px</label
	>
	<label
		>{wording.howMany}
		<input class="w-15.5" type="number" min="1" max="20" value={body.count ?? 1} onchange={count} /></label
	>
</div>
