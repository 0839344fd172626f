<script lang="ts">
	import { wording } from '$ui/words/en/pages';
	import { counted } from '$ui/words/speaking';
	import Button from '$ui/parts/Button.svelte';
	import Told from '$ui/parts/Told.svelte';
	import { onMount, untrack } from 'svelte';
	import { goto, replaceState } from '$app/navigation';
	import { page as place } from '$app/state';
	import { addressOf, call, isRefused } from '../client';
	import { TakingBack } from '$ui/parts/takingBack.svelte';
	import { fetchable, type StandIn } from '$ui/parts/words';
	import { keyOf } from '$ui/parts/keys';
	import { benchAt, roomAt } from '$ui/places/rooms';
	import RoomBar from '$ui/rooms/RoomBar.svelte';
	import { Neighbours } from '$ui/workspace/sharing';
	import type { CellWrite } from '$server/edits/cells';
	import type { PageFilter, Sort } from '$server/store/table/grid';
	import BatchPanel from './BatchPanel.svelte';
	import { sortIn, USUAL_COLUMNS } from './columns';
	import CsvBack from './CsvBack.svelte';
	import FilterBar from './FilterBar.svelte';
	import { ColumnLayout } from './layout.svelte';
	import { Grid, type Order } from './grid.svelte';
	import PageTable from './PageTable.svelte';

	interface Data {
		readonly site: { readonly name: string; readonly base: string; readonly languages: readonly string[] };
		readonly types: readonly { readonly name: string; readonly label: string }[];
		readonly filters: readonly { readonly name: string; readonly query: string }[];
		/** The kinds of findings that pages have. */
		readonly findings: readonly string[];
		readonly standIn: StandIn;
	}
	let { data }: { data: Data } = $props();

	const site = untrack(() => data.site.name);
	const neighbours = new Neighbours(site);
	/** The page whose card is shown beside its row. */
	let peeked = $state.raw<{ readonly path: string; readonly at: HTMLElement } | undefined>();
	const peek = (path: string | undefined, at?: HTMLElement) =>
		(peeked = path !== undefined && at ? { path, at } : undefined);
	const small = (src: string) =>
		fetchable(src.startsWith('/') ? data.site.base + src.slice(1) : src, data.site.base, data.standIn);
	const NAMES = [
		'q',
		'type',
		'language',
		'state',
		'finding',
		'of',
		'from',
		'differs',
		'without',
		'key',
		'title',
		'description',
		'picture'
	];
	const asked = untrack(() => place.url.searchParams);
	let filter = $state<PageFilter>(
		Object.fromEntries(NAMES.flatMap((name) => (asked.get(name) ? [[name, asked.get(name)]] : [])))
	);
	let order = $state<Order>({ sort: sortIn(asked.get('sort')), down: asked.get('down') === '1' });
	const layout = untrack(
		() => new ColumnLayout(asked.get('columns')?.split(',') ?? USUAL_COLUMNS, `kephalon columns ${site}`)
	);
	const shown = $derived(layout.shown);
	let filters = $state(untrack(() => data.filters));
	let makes = $state(false);
	let message = $state('');
	/** The edit that the message can take back. */
	let undoable = $state<number | undefined>();
	let chosen = $state<ReadonlySet<string>>(new Set());
	/** All that the filter means, however many. */
	let isAll = $state(false);
	/** Of all, those that are not meant. */
	let except = $state<ReadonlySet<string>>(new Set());
	const grid = untrack(() => new Grid(site, filter, order));
	const meant = $derived(isAll ? grid.count - except.size : chosen.size);
	function firstBut(paths: ReadonlySet<string>): string | undefined {
		void grid.version;
		for (let at = 0; at <= paths.size; at++) {
			const path = grid.row(at)?.path;
			if (path !== undefined && !paths.has(path)) return path;
		}
		return undefined;
	}
	/** One of the pages that are meant: the first in view, or the first that was chosen. */
	const firstMeant = $derived(isAll ? firstBut(except) : [...chosen][0]);

	onMount(() => {
		layout.recall();
		void grid.show($state.snapshot(filter), order);
		const stop = neighbours.listen(() => void grid.again());
		const timer = setInterval(() => grid.unseen > 0 && void grid.again(), 700);
		return () => {
			stop();
			clearInterval(timer);
			grid.leave();
		};
	});

	/** The filter and the order stand in the address: it can be sent, and one comes back to it. */
	function show() {
		const query = new URLSearchParams();
		for (const [name, value] of Object.entries(filter)) if (value) query.set(name, value as string);
		if (order.sort !== 'path') query.set('sort', order.sort);
		if (order.down) query.set('down', '1');
		if (shown.join() !== USUAL_COLUMNS.join()) query.set('columns', shown.join(','));
		replaceState(`${roomAt('pages', site)}${query.size > 0 ? `?${query}` : ''}`, {});
		chosen = new Set();
		isAll = false;
		except = new Set();
		return grid.show($state.snapshot(filter), $state.snapshot(order));
	}
	function setFilter(next: PageFilter) {
		filter = next;
		void show();
	}
	function sortBy(sort: Sort) {
		order = { sort, down: order.sort === sort ? !order.down : ['findings', 'differs', 'key'].includes(sort) };
		void show();
	}
	const saveFilter = (name: string, query: string) =>
		call('POST /sites/{site}/filters', { site, body: { name, query } });
	async function keepFilter(name: string) {
		const answer = await saveFilter(name, new URLSearchParams(filter as Record<string, string>).toString());
		if (isRefused(answer)) message = answer.refused;
		else filters = answer;
	}
	async function dropFilter(name: string) {
		const answer = await saveFilter(name, '');
		if (!isRefused(answer)) filters = answer;
	}
	function done(told: string, edit: number | undefined) {
		message = told;
		undoable = edit;
		neighbours.tell();
		void grid.again();
	}
	async function write(cells: readonly CellWrite[], left = '') {
		const [first] = cells;
		if (!first) return void ([message, undoable] = [left && wording.nothingIsWritten(left), undefined]);
		const isBack = cells.every(({ text }) => text === '');
		const answer = await call('POST /sites/{site}/cells', { site, body: { cells } });
		if (isRefused(answer)) return void ([message, undoable] = [answer.refused, undefined]);
		const what =
			cells.length === 1
				? wording.of2(first.tag, first.path, isBack ? wording.isSetBack : wording.isWrittenAtThePage)
				: wording.cellsAre(counted(cells.length), isBack ? wording.setBack : wording.writtenAtTheirPages);
		done([what, left].filter(Boolean).join(' '), answer.edit);
	}
	const taking = new TakingBack();
	async function takeBack() {
		if (undoable === undefined) return;
		const refusal = await taking.run(site, undoable);
		if (refusal) return void (message = refusal.refused);
		done(wording.takenBack, undefined);
	}
	function onkeydown(event: KeyboardEvent) {
		if (
			keyOf(event) === 'undo' &&
			undoable !== undefined &&
			!/^(INPUT|TEXTAREA)$/.test((event.target as HTMLElement).tagName)
		) {
			event.preventDefault();
			void takeBack();
		}
	}
	const out = $derived.by(() => {
		void grid.version;
		const query = { ...filter, columns: shown.join(','), sort: order.sort, ...(order.down && { down: '1' }) };
		return {
			csv: addressOf('GET /sites/{site}/csv', { site, query }),
			workbook: addressOf('GET /sites/{site}/workbook', { site, query })
		};
	});
</script>

<svelte:window {onkeydown} />
<div class="flex h-screen flex-col">
	<RoomBar {site} room="pages" />
	<header
		class="head flex flex-wrap items-baseline gap-x-3.5 gap-y-1.5 bg-sheet px-4 pt-2 pb-0.5 [&>*]:whitespace-nowrap"
	>
		<h1 class="text-md font-semibold">{wording.pages}</h1>
		<p class="count flex-1" role="status" data-testid="count">
			{#if grid.isCounted}
				{counted(grid.count)}
				{grid.count === 1 ? wording.page : wording.pages2}{Object.values(filter).some(Boolean)
					? wording.byThisFilter
					: ''}
			{/if}
			{#if grid.unseen > 0}<span class="text-ink-soft">{wording.yetToBeLookedAt(counted(grid.unseen))}</span>{/if}
		</p>
		<Button class="text-sm" onclick={() => (makes = true)}>{wording.newPage}</Button>
		<Button class="text-sm" href={out.workbook} download data-tip={wording.spreadsheetsLeaveItsTextsAs}
			>{wording.outAsXlsx}</Button
		>
		<Button class="text-sm" href={out.csv} download>{wording.outAsCsv}</Button>
		<CsvBack {site} {done} />
	</header>
	<FilterBar
		{filter}
		types={data.types}
		languages={data.site.languages}
		findings={data.findings}
		{filters}
		{setFilter}
		{keepFilter}
		{dropFilter}
		{layout}
	/>
	{#if message || grid.refused}
		<Told>
			{#if taking.far}{taking.says} <Button look="link" onclick={taking.stop}>{wording.stop}</Button>
			{:else}
				{grid.refused || message}
				{#if undoable !== undefined}<Button onclick={() => void takeBack()}>{wording.takeItBack}</Button>{/if}
				<Button onclick={() => ((message = ''), (undoable = undefined))}>{wording.close}</Button>
			{/if}
		</Told>
	{/if}
	<main class="flex min-h-0 flex-1" id="room">
		<PageTable
			{grid}
			columns={layout.columns}
			{layout}
			{peek}
			{order}
			{chosen}
			{isAll}
			{except}
			{sortBy}
			{write}
			tell={(words) => ([message, undoable] = [words, undefined])}
			choose={(next) => ((chosen = next), (isAll = false))}
			leaveOut={(next) => (except = next)}
			chooseAll={() => ((isAll = !isAll || except.size > 0), (except = new Set()), (chosen = new Set()))}
			{small}
			open={(path, tag) => void goto(benchAt(site, path, tag))}
		/>
		{#if meant > 0}
			<BatchPanel
				{site}
				pages={isAll ? { filter, ...(except.size > 0 && { without: [...except] }) } : { paths: [...chosen] }}
				count={meant}
				first={firstMeant}
				types={data.types}
				{done}
				close={() => ((chosen = new Set()), (isAll = false))}
			/>
		{/if}
	</main>
</div>
{#if peeked}
	{#await import('./PeekedCard.svelte') then { default: PeekedCard }}
		{#if peeked}<PeekedCard
				{site}
				path={peeked.path}
				at={peeked.at}
				base={data.site.base}
				standIn={data.standIn}
				close={() => (peeked = undefined)}
			/>{/if}
	{/await}
{/if}
{#if makes}
	{#await import('$ui/bench/NewPage.svelte') then { default: NewPage }}
		<NewPage
			bind:open={makes}
			{site}
			types={data.types}
			languages={data.site.languages}
			usual={filter.type ?? data.types[0]?.name ?? ''}
			made={(path) => void goto(benchAt(site, path))}
		/>
	{/await}
{/if}
