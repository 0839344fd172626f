<script lang="ts">
	import { wording } from '$ui/words/en/pages';
	import { counted } from '$ui/words/speaking';
	import Empty from '$ui/parts/Empty.svelte';
	import Papa from 'papaparse';
	import { onDestroy, onMount, tick, untrack } from 'svelte';
	import { stepOfSpace, withLook } from '$ui/look/look';
	import { elementScroll, observeElementOffset, observeElementRect, Virtualizer } from '@tanstack/virtual-core';
	import LayerMark from '$ui/parts/LayerMark.svelte';
	import type { LayerSign } from '$ui/parts/lines';
	import type { CellWrite } from '$server/edits/cells';
	import type { GridRow, Sort } from '$server/store/table/grid';
	import type { Order } from './grid.svelte';
	import type { Column } from './columns';
	import { inCell, differsInWords } from './columns';
	import { widen, type ColumnLayout } from './layout.svelte';
	import type { Grid } from './grid.svelte';

	/** The table itself: rows are drawn as they come into view. By keys like a sheet. */
	let {
		grid,
		columns,
		layout,
		peek,
		order,
		chosen,
		isAll,
		except,
		sortBy,
		write,
		tell,
		choose,
		leaveOut,
		chooseAll,
		small,
		open
	}: {
		grid: Grid;
		columns: readonly Column[];
		/** Takes how wide a column is. */
		layout: ColumnLayout;
		/** Shows the card of a page beside an element, or none any more. */
		peek: (path: string | undefined, at?: HTMLElement) => void;
		order: Order;
		chosen: ReadonlySet<string>;
		/** All that the filter means are chosen, but for some. */
		isAll: boolean;
		except: ReadonlySet<string>;
		sortBy: (sort: Sort) => void;
		/** Writes cells at their pages; `left` says what was not written. */
		write: (cells: readonly CellWrite[], left?: string) => void;
		tell: (words: string) => void;
		choose: (chosen: ReadonlySet<string>) => void;
		/** All but these. */
		leaveOut: (paths: ReadonlySet<string>) => void;
		chooseAll: () => void;
		/** Where a picture can be fetched from, by its source. */
		small: (src: string) => string;
		open: (path: string, tag?: string) => void;
	} = $props();

	/** Of a row (pixels): as everything is set, denser or roomier. */
	let height = $state(30);
	onMount(() => withLook(() => (height = 7.5 * stepOfSpace())));
	/** So many rows passed in one frame are passed by. */
	const PASSED = 50;
	/** Stands for a row that is not here yet. */
	const BLANK: GridRow = {
		...{ id: 0, path: '…', type: '', language: null, state: '', modified: null, card: '', target: '', findings: null },
		...{ title: '', titleWidth: 0, titleFrom: '', description: '', descriptionWidth: 0, descriptionFrom: '' },
		...{ picture: '', pictureFrom: '', weight: 0, differs: 0, isKey: 0, isKnown: 1 }
	};
	let scroller = $state<HTMLElement>();
	/**
	 * It is moved sideways: only then the path is held where it is, as what is held so is a layer of its own in each row, moved
	 * with every frame. (Nor is its ground inherited from its row: that costs 50 ms in each frame of new rows.)
	 */
	let isAside = $state(false);
	/** A row in view. Elements are used again: each row in view has a place among them, whatever row stood there before. */
	interface Line {
		readonly slot: number;
		readonly index: number;
		readonly row: GridRow | undefined;
	}
	let items = $state.raw<readonly number[]>([]);
	let isMoving = $state(false);
	/** The first row that was drawn. */
	let begun = 0;
	/** It rests where nothing has moved for so long (milliseconds). */
	const RESTING = 30;
	let resting: ReturnType<typeof setTimeout> | undefined;
	let total = $state(0);
	/** The cell that the keys are at, and the one where a range began. */
	let at = $state({ row: 0, column: 0 });
	let from = $state<{ readonly row: number; readonly column: number } | undefined>();
	let editing = $state<string | undefined>();
	let virtualizer: Virtualizer<HTMLElement, Element> | undefined;

	$effect(() => {
		const { count } = grid;
		void height;
		// What it measures and draws is no reason to begin again.
		return scroller ? untrack(() => watch(count)) : undefined;
	});
	function watch(count: number) {
		virtualizer = new Virtualizer<HTMLElement, Element>({
			...{ count, overscan: 8, scrollToFn: elementScroll },
			getScrollElement: () => scroller ?? null,
			estimateSize: () => height,
			observeElementRect,
			observeElementOffset,
			onChange: draw
		});
		const stop = virtualizer._didMount();
		virtualizer._willUpdate();
		draw();
		return stop;
	}
	function draw() {
		if (!virtualizer) return;
		total = virtualizer.getTotalSize();
		isMoving = virtualizer.isScrolling;
		// The element that it stands beside is another row's by then.
		if (isMoving) peekNoMore();
		items = virtualizer.getVirtualItems().map(({ index }) => index);
		const [first, last] = [items[0], items.at(-1)];
		if (first === undefined || last === undefined) return;
		// Who drags the bar through thousands of rows reads none of them; those where it rests are fetched.
		clearTimeout(resting);
		if (!isMoving || Math.abs(first - begun) < PASSED) grid.want(first, last);
		else resting = setTimeout(() => grid.want(first, last), RESTING);
		begun = first;
	}
	onDestroy(() => clearTimeout(resting));
	/** By their places; a line that stays as it was stays the same object, and nothing of it is drawn again. */
	let drawn: Line[] = [];
	const lines = $derived.by(() => {
		void grid.version;
		const slots = Math.max(drawn.length, items.length);
		const before = drawn;
		drawn = Array.from({ length: slots }, (_, slot) => before[slot] ?? { slot, index: -1, row: undefined });
		for (const index of items) {
			const slot = index % slots;
			const row = grid.row(index);
			const known = drawn[slot];
			if (known?.index !== index || known.row !== row) drawn[slot] = { slot, index, row };
		}
		// At rest they stand in their order, for those who read one after the other.
		const inView = drawn.filter(({ index }) => index >= 0 && index < grid.count);
		return isMoving ? inView : inView.sort((a, b) => a.index - b.index);
	});
	const template = $derived(`32px ${columns.map(({ width }) => `${width}px`).join(' ')}`);
	const width = $derived(32 + columns.reduce((sum, column) => sum + column.width, 0));
	/** The cells from one corner to the other. */
	const range = $derived.by(() => {
		const other = from ?? at;
		return {
			...{ top: Math.min(other.row, at.row), bottom: Math.max(other.row, at.row) },
			...{ left: Math.min(other.column, at.column), right: Math.max(other.column, at.column) }
		};
	});
	/** Of larger ranges the cells are not fetched. */
	const MOST_ROWS = 5000;

	function go(row: number, column: number, isRange = false) {
		if (isRange) from ??= { ...at };
		else from = undefined;
		at = { row: Math.max(0, Math.min(grid.count - 1, row)), column: Math.max(0, Math.min(columns.length - 1, column)) };
		virtualizer?.scrollToIndex(at.row);
	}
	function edit(text?: string) {
		const [column, row] = [columns[at.column], grid.row(at.row)];
		if (!row || !column) return;
		if (!column.writes) return open(row.path);
		editing = text ?? column.text(row);
		void tick().then(() => {
			const field = scroller?.querySelector<HTMLInputElement>('.cell input');
			field?.focus();
			// What was typed goes on behind what is there.
			if (text === undefined) field?.select();
			else field?.setSelectionRange(text.length, text.length);
		});
	}
	function leave(keep: boolean) {
		const [column, row, text] = [columns[at.column], grid.row(at.row), editing];
		editing = undefined;
		scroller?.focus();
		if (keep && row && column?.writes && text !== undefined && text !== column.text(row))
			write([{ path: row.path, tag: column.writes, text }]);
	}
	function toggle(path: string) {
		const next = new Set(isAll ? except : chosen);
		if (!next.delete(path)) next.add(path);
		if (isAll) leaveOut(next);
		else choose(next);
	}
	function chooseHere() {
		const row = grid.row(at.row);
		if (from !== undefined) void chooseRange();
		else if (row) toggle(row.path);
	}
	async function chooseRange() {
		const rows = await rowsOf(range.top, range.bottom);
		if (!rows) return;
		const paths = rows.map(({ path }) => path);
		if (isAll) leaveOut(new Set([...except].filter((path) => !paths.includes(path))));
		else choose(new Set([...chosen, ...paths]));
	}
	/** The rows of a range, also those that have not been in view; undefined, and said, where they are too many. */
	async function rowsOf(top: number, bottom: number) {
		const count = bottom - top + 1;
		if (count <= MOST_ROWS) return grid.between(top, bottom);
		tell(wording.rowsAreMoreThanTheOfOne(counted(count), counted(MOST_ROWS)));
		return undefined;
	}
	/** Cells that show the card of their page when somebody rests on them. */
	const PEEKS = new Set(['path']);
	const PEEK_AFTER = 600;
	let peeking: ReturnType<typeof setTimeout> | undefined;
	function peekSoon({ currentTarget, pointerType }: PointerEvent, path: string) {
		if (pointerType === 'touch' || isMoving) return;
		clearTimeout(peeking);
		peeking = setTimeout(() => editing === undefined && peek(path, currentTarget as HTMLElement), PEEK_AFTER);
	}
	function peekNoMore() {
		clearTimeout(peeking);
		peek(undefined);
	}
	onDestroy(() => clearTimeout(peeking));

	const MOVES: Readonly<Record<string, readonly [number, number]>> = {
		...{ ArrowDown: [1, 0], ArrowUp: [-1, 0], ArrowRight: [0, 1], ArrowLeft: [0, -1] },
		...{ PageDown: [15, 0], PageUp: [-15, 0] }
	};
	function onkeydown(event: KeyboardEvent) {
		if (editing !== undefined) {
			if (event.key === 'Enter') leave(true);
			else if (event.key === 'Escape') leave(false);
			else return;
			event.preventDefault();
			event.stopPropagation();
			return;
		}
		const isCommand = event.ctrlKey || event.metaKey;
		const move = event.altKey ? undefined : MOVES[event.key];
		const arrow = ({ ArrowRight: 16, ArrowLeft: -16 } as Readonly<Record<string, number>>)[event.key];
		const here = columns[at.column];
		if (event.altKey && event.shiftKey && arrow !== undefined && here) {
			layout.resize(here.id, here.width + arrow);
			layout.keep();
		} else if (event.altKey && event.code === 'KeyC') {
			const path = grid.row(at.row)?.path;
			peek(path, document.getElementById('cell-at') ?? undefined);
		} else if (move) go(at.row + move[0], at.column + move[1], event.shiftKey);
		else if (event.key === 'Home') go(isCommand ? 0 : at.row, 0);
		else if (event.key === 'End') go(isCommand ? grid.count - 1 : at.row, columns.length - 1);
		else if (event.key === 'Enter' && !isCommand) edit();
		else if (event.key === ' ') chooseHere();
		else if (event.key === 'Escape') {
			peek(undefined);
			choose(new Set());
		} else if (isCommand && event.key.toLowerCase() === 'a') chooseAll();
		else if (
			(event.key === 'Delete' || event.key === 'Backspace') &&
			columns.slice(range.left, range.right + 1).some(({ writes }) => writes)
		)
			void writeRange([['']]);
		else if (event.key.length === 1 && !isCommand && !event.altKey && columns[at.column]?.writes) edit(event.key);
		else return;
		event.preventDefault();
	}
	/** Writes cells from the range's first on; one alone goes into all of the range. */
	async function writeRange(cells: readonly (readonly string[])[]) {
		const { top, left } = range;
		const isOne = cells.length === 1 && cells[0]!.length === 1;
		const [height, width] = isOne
			? [range.bottom - top + 1, range.right - left + 1]
			: [cells.length, Math.max(...cells.map(({ length }) => length))];
		const rows = await rowsOf(top, Math.min(grid.count - 1, top + height - 1));
		if (!rows) return;
		const writes: CellWrite[] = [];
		let same = 0;
		for (const [down, row] of rows.entries())
			for (const [across, column] of columns.slice(left, left + width).entries()) {
				const text = (isOne ? cells[0]![0] : cells[down]?.[across])?.trim();
				if (column.writes === undefined || text === undefined) continue;
				// What a cell shows already, wherever that comes from, is no reason for words of its own.
				if (text !== '' && text === column.text(row)) same++;
				else writes.push({ path: row.path, tag: column.writes, text });
			}
		const all = isOne ? height * width : cells.reduce((sum, { length }) => sum + length, 0);
		const others = all - writes.length - same;
		const told = [
			same > 0 && wording.thatAlready(inWords(same, wording.cellSays, wording.cellsSay)),
			others > 0 && wording.inColumnsThatOnlyShowOrBelow(inWords(others, 'is', 'are'))
		];
		write(writes, told.filter(Boolean).join(' '));
	}
	const inWords = (count: number, one: string, many: string) => `${counted(count)} ${count === 1 ? one : many}`;
	/** As spreadsheets put cells on the clipboard. */
	const asCells = (rows: readonly GridRow[]) =>
		Papa.unparse(
			rows.map((row) => columns.slice(range.left, range.right + 1).map((column) => column.text(row))),
			{ delimiter: '\t', newline: '\n' }
		);
	function oncopy(event: ClipboardEvent) {
		if (editing !== undefined) return;
		event.preventDefault();
		const { top, bottom } = range;
		const here = [];
		for (let row = top; row <= bottom; row++) here.push(grid.row(row));
		const known = here.filter((row) => row !== undefined);
		if (known.length === here.length) event.clipboardData?.setData('text/plain', asCells(known));
		else
			void rowsOf(top, bottom).then(async (rows) => {
				if (!rows) return;
				await navigator.clipboard.writeText(asCells(rows));
				tell(wording.rowsAreCopied(counted(rows.length)));
			});
	}
	function onpaste(event: ClipboardEvent) {
		if (editing !== undefined) return;
		const text = event.clipboardData?.getData('text/plain') ?? '';
		if (text === '') return;
		event.preventDefault();
		const all = text.replace(/\r?\n$/, '');
		const { data, errors } = Papa.parse<string[]>(all, { delimiter: '\t' });
		// Quotation marks that enclose no cell are words.
		const cells = errors.length === 0 ? data : all.split(/\r?\n/).map((row) => row.split('\t'));
		if (columns.slice(range.left).some(({ writes }) => writes)) void writeRange(cells);
		else tell(wording.nothingIsWrittenTheseColumns);
	}
	const signOf = (layer: string) => (layer || 'built-in') as LayerSign;
</script>

{#snippet text(tag: 'title' | 'description', words: string)}
	{@const { whole, cut, length } = inCell(tag, words)}
	<!-- Its length is drawn, and no part of the text. -->
	<span
		class="float-right ml-1.5 font-sans text-2xs text-ink-soft before:content-[attr(data-length)]"
		class:text-flag={cut !== ''}
		data-length={length}
	></span>{whole}{#if cut}<span class="border-l border-dashed border-l-flag text-ink-soft">{cut}</span>{/if}
{/snippet}
<div
	class="pages-sheet group/sheet relative flex-1 overflow-auto bg-sheet text-sm [contain:strict]"
	role="grid"
	aria-label={wording.allPages}
	aria-rowcount={grid.count + 1}
	aria-colcount={columns.length + 1}
	tabindex="0"
	bind:this={scroller}
	data-aside={isAside ? '' : undefined}
	onscroll={({ currentTarget }) => (isAside = currentTarget.scrollLeft > 0)}
	aria-activedescendant={grid.count > 0 ? 'cell-at' : undefined}
	{onkeydown}
	{oncopy}
	{onpaste}
>
	<div
		class="line sticky top-0 z-2 grid h-7.5 w-full border-b border-b-rule bg-sunk font-semibold"
		role="row"
		aria-rowindex="1"
		style:grid-template-columns={template}
		style:width="{width}px"
	>
		<span
			role="columnheader"
			class="tick left-0 z-1 grid place-items-center bg-sunk px-2 py-1.25 whitespace-nowrap group-data-aside/sheet:sticky"
			><input
				type="checkbox"
				aria-label={wording.chooseAllThatTheFilterMeans}
				checked={isAll && except.size === 0}
				indeterminate={isAll && except.size > 0}
				onchange={chooseAll}
				tabindex="-1"
			/></span
		>
		{#each columns as { id, name, sort, width: wide } (id)}
			<span
				class="relative truncate px-2 py-1.25 whitespace-nowrap [&.path]:z-1 [&.path]:bg-sunk group-data-aside/sheet:[&.path]:sticky group-data-aside/sheet:[&.path]:left-8"
				class:path={id === 'path'}
				role="columnheader"
				aria-sort={order.sort === sort ? (order.down ? 'descending' : 'ascending') : undefined}
			>
				{#if sort}<button tabindex="-1" onclick={() => sortBy(sort)}
						>{name}{order.sort === sort ? (order.down ? ' ↓' : ' ↑') : ''}</button
					>{:else}{name}{/if}
				<!-- By keys: Alt+Shift and an arrow, at a cell of the column. -->
				<span
					class="edge absolute top-0 right-0 h-full w-1.5 cursor-col-resize touch-none hover:bg-sea"
					aria-hidden="true"
					data-edge={id}
					onpointerdown={(event) => widen(event, id, wide, layout)}
				></span>
			</span>
		{/each}
	</div>
	<div class="all relative" role="presentation" style:height="{total}px" style:width="{width}px">
		{#each lines as { slot, index, row } (slot)}
			{@const isChosen = row !== undefined && (isAll ? !except.has(row.path) : chosen.has(row.path))}
			{@const shown = row ?? BLANK}
			<div
				class="line absolute top-0 left-0 grid w-full border-b border-b-rule bg-sheet [contain:strict] [&.chosen]:bg-sea-wash [&.waits]:text-ink-soft [&.waits]:italic"
				role="row"
				aria-rowindex={index + 2}
				aria-selected={isChosen}
				class:chosen={isChosen}
				class:waits={!shown.isKnown}
				style:grid-template-columns={template}
				style:height="{height}px"
				style:transform="translateY({index * height}px)"
			>
				<span
					role="gridcell"
					class="tick left-0 z-1 grid place-items-center bg-sheet group-data-aside/sheet:sticky in-[.chosen]:bg-sea-wash"
				>
					<input
						type="checkbox"
						tabindex="-1"
						aria-label={wording.choose(shown.path)}
						disabled={!row}
						checked={isChosen}
						onchange={() => row && toggle(row.path)}
					/>
				</span>
				{#each columns as column, number (column.id)}
					{@const isAt = index === at.row && number === at.column}
					<!-- svelte-ignore a11y_click_events_have_key_events -->
					<span
						role="gridcell"
						tabindex="-1"
						id={isAt ? 'cell-at' : undefined}
						class="cell {column.id} border-r border-r-rule px-2 py-0 leading-7.25 text-ellipsis whitespace-nowrap [contain:strict] in-[:focus]:[&.at]:outline-2 in-[:focus]:[&.at]:-outline-offset-2 in-[:focus]:[&.at]:outline-focus [&.chosen]:bg-sea-wash [&.findings]:text-flag [&.path]:left-8 [&.path]:z-1 [&.path]:cursor-pointer [&.path]:bg-sheet [&.path]:text-xs group-data-aside/sheet:[&.path]:sticky [&.path]:hover:underline [&.path.range]:bg-sea-wash [&.range]:bg-sea-wash [&.waits]:text-ink-soft [&.waits]:italic [&>.mark]:mr-1.5 [&>.mark]:[vertical-align:-1px] [.chosen>&.path]:bg-sea-wash"
						class:at={isAt}
						class:range={from !== undefined &&
							number >= range.left &&
							number <= range.right &&
							index >= range.top &&
							index <= range.bottom}
						onclick={(event) => {
							go(index, number, event.shiftKey);
							if (column.id === 'path' && row && !event.shiftKey) open(row.path);
						}}
						ondblclick={() => edit()}
						onpointerenter={row && PEEKS.has(column.id) ? (event) => peekSoon(event, row.path) : undefined}
						onpointerleave={row && PEEKS.has(column.id) ? () => peekNoMore() : undefined}
					>
						{#if editing !== undefined && isAt}
							<input
								class="w-full px-1 py-px"
								aria-label={wording.of(column.name, shown.path)}
								bind:value={editing}
								onblur={() => editing !== undefined && leave(true)}
							/>
						{:else if column.id === 'title'}<LayerMark layer={signOf(shown.titleFrom)} size={10} /><span
								class="font-serif">{@render text('title', shown.title)}</span
							>
						{:else if column.id === 'description'}<LayerMark
								layer={signOf(shown.descriptionFrom)}
								size={10}
							/>{#if shown.description}{@render text('description', shown.description)}{:else}—{/if}
						{:else if column.id === 'picture'}<LayerMark layer={signOf(shown.pictureFrom)} size={10} /><span
								class="font-mono">{shown.picture.split('/').at(-1) || wording.none2}</span
							>
						{:else if column.id === 'small'}{#if shown.picture}<img
									class="mt-px h-6.75 w-13 object-cover"
									src={small(shown.picture)}
									alt=""
									loading="lazy"
									decoding="async"
								/>{:else}<span class="text-ink-soft">{wording.none2}</span>{/if}
						{:else if column.id === 'differs'}{#if shown.differs > 0}<span class="pennant" aria-hidden="true"
								></span>{/if}{differsInWords(shown)}
						{:else if column.id === 'path'}<span class="font-mono"
								>{#if shown.isKey}<span data-tip={wording.keyPage} aria-label={wording.keyPage}
										>★
									</span>{/if}{shown.path}</span
							>
						{:else}{column.text(shown)}{/if}
					</span>
				{/each}
			</div>
		{/each}
	</div>
	{#if grid.isCounted && grid.count === 0 && !grid.isLoading && !grid.refused}<div class="none p-6">
			<Empty says={wording.noPageIsSo}>{wording.takeSomethingOutOfTheFilter}</Empty>
		</div>{/if}
</div>
