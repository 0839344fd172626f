<script lang="ts">
	import { wording } from '$ui/words/en/setup';
	import { counted } from '$ui/words/speaking';
	import { works, type Work } from '$ui/works/works.svelte';
	import WorkLine from '$ui/works/WorkLine.svelte';
	import Select from '$ui/parts/select/Select.svelte';
	import Button from '$ui/parts/Button.svelte';
	import Refused from '$ui/parts/Refused.svelte';
	import { checkBase, toText } from '$core';
	import type { Taken } from '$server/imports/content';
	import type { TableLook } from '$server/imports/table/table';
	import type { PartOf } from '$server/http/contract';
	import type { Reading } from '$server/imports/table/values';
	import { call, follow, isRefused } from '$ui/client';
	import Setting from '$ui/settings/Setting.svelte';
	import FolderFound, { hasToSay, type FolderSaid } from './FolderFound.svelte';
	import { pagesInWords } from '$ui/parts/words';

	/** Where the content of a site comes from: a folder of HTML, a table, or by hand. */
	let {
		name: known,
		base: knownBase,
		folders,
		goOn
	}: {
		name: string;
		base: string;
		/** The folders that may be read from. */
		folders: readonly string[];
		goOn: (site: string) => void;
	} = $props();

	type Kind = 'folder' | 'table' | 'web' | 'hand';
	const KINDS: [Kind, string, string][] = [
		['folder', wording.aFolderOfHtml, wording.theFilesThatYourGeneratorOr],
		['table', wording.aTable, wording.aWorkbookXlsxCsvTsvJsonOr],
		['web', wording.fromTheWeb, wording.thePagesOfALiveSiteFrom],
		['hand', wording.byHand, wording.onePageToBeginWithAddThe]
	];
	let kind = $state<Kind>('folder');
	let typedName = $state<string | undefined>();
	let typedBase = $state<string | undefined>();
	const name = $derived(typedName ?? known);
	const base = $derived(typedBase ?? knownBase);
	let folder = $state('');
	let ignore = $state('');
	const ignored = $derived(
		ignore
			.split('\n')
			.map((line) => line.trim())
			.filter(Boolean)
	);
	let type = $state('page');
	let from = $state('');
	let table = $state<TableLook | undefined>();
	let file = $state<File | undefined>();
	let dayFirst = $state(true);
	let pathFromTitle = $state(false);
	/** Of a workbook; undefined takes the first that holds anything. */
	let chosenSheet = $state<string | undefined>();
	let mapping = $state<Record<string, string>>({});
	let confirmed = $state(false);
	let busy = $state(false);
	let reading = $state.raw<Work | undefined>();
	let isLooking = $state(false);
	let refused = $state('');
	let taken = $state<(Taken & { name: string }) | undefined>();

	const checked = $derived(base.trim() === '' ? undefined : checkBase(base));
	const MEANINGS = ['path', 'title', 'summary', 'body', 'picture', 'author', 'published', 'section', 'tags'];
	const isReady = $derived(
		name.trim() !== '' &&
			checked?.base !== undefined &&
			(checked.asks.length === 0 || confirmed) &&
			(kind !== 'folder' || folder.trim() !== '') &&
			(kind !== 'table' || (table !== undefined && table.pages > 0)) &&
			(kind !== 'web' || /^https?:\/\//i.test(from.trim()))
	);

	async function chooseFile(event: Event & { currentTarget: HTMLInputElement }) {
		file = event.currentTarget.files?.[0];
		[table, mapping, chosenSheet, refused] = [undefined, {}, undefined, ''];
		await look();
	}
	/** How dates are read, where a person has to say. */
	const readings = $derived(
		Object.fromEntries(
			Object.entries(table?.readings ?? {})
				.filter(([, { kind: what }]) => what === 'date')
				.map(([column]) => [column, { kind: 'date' as const, dayFirst }])
		)
	);
	async function look() {
		const looked = file;
		if (!looked) return;
		isLooking = true;
		const read = await call('POST /table', {
			body: {
				mapping: $state.snapshot(mapping),
				readings: $state.snapshot(readings) as Readonly<Record<string, Reading>>,
				pathFromTitle,
				...(chosenSheet !== undefined && { sheet: chosenSheet }),
				base: checked?.base ?? ''
			},
			bytes: looked
		});
		// Another may have been chosen meanwhile.
		if (file !== looked) return;
		isLooking = false;
		refused = isRefused(read) ? read.refused : '';
		if (isRefused(read)) return;
		table = read;
		chosenSheet = read.named;
		mapping = { ...read.mapping };
	}
	const again = () => void look();
	const asked = $derived(Object.entries(table?.readings ?? {}).filter(([, { ambiguous }]) => ambiguous));
	async function take({ trimTitles, keepTitles, ...said }: FolderSaid = {}) {
		busy = true;
		refused = '';
		const source: PartOf<'POST /sites', 'body'>['source'] =
			kind === 'folder'
				? {
						kind,
						folder: folder.trim(),
						said: { ...(ignored.length > 0 && { ignore: ignored }), ...said },
						...(trimTitles && { trimTitles }),
						...(keepTitles && { keepTitles })
					}
				: kind === 'table'
					? {
							...{ kind, mapping, type, readings },
							...(pathFromTitle && { pathFromTitle }),
							...(chosenSheet !== undefined && { sheet: chosenSheet })
						}
					: kind === 'web'
						? { kind, from: from.trim() }
						: { kind };
		const body = { name: name.trim(), base: checked?.base as string, source };
		const work = (reading = works.begin(body.name, wording.readingTheContent));
		const result = await follow('POST /sites', { body, ...(kind === 'table' && { bytes: file }) }, work, {
			stopped: wording.stoppedReadAgainWhatWasRead
		});
		[busy, reading] = [false, undefined];
		works.end(work, isRefused(result) ? result.refused : wording.wasRead(body.name), isRefused(result));
		if (isRefused(result)) refused = result.refused;
		else if (result.skipped.length > 0 || (result.folder && hasToSay(result.folder)))
			taken = { ...result, name: name.trim() };
		else goOn(name.trim());
	}
</script>

<!-- Enter in a field of one line goes on, as in a form; the parts of a table are looked at again by themselves. -->
<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<section
	class="content"
	aria-label={wording.content}
	onkeydown={(event) => {
		const field = event.target as HTMLElement;
		if (event.key !== 'Enter' || !field.matches('.setting input:not([type=checkbox]):not([type=file])')) return;
		event.preventDefault();
		if (isReady && !busy) void take();
	}}
>
	<p class="text-ink-soft">
		{wording.kephalonReadsWhatYourPages}
	</p>
	<div class="two grid grid-cols-2 gap-3.5 max-narrow:grid-cols-1">
		<Setting name={wording.nameOfTheSite}
			><input
				bind:value={() => name, (value) => (typedName = value)}
				placeholder={wording.merrowCoastReserves}
			/></Setting
		>
		<Setting name={wording.publicBaseAddress}>
			<input
				class="font-mono"
				bind:value={() => base, (value) => (typedBase = value)}
				placeholder="https://www.site.example/"
				aria-invalid={checked?.refused !== undefined}
			/>
		</Setting>
	</div>
	{#if checked?.refused}
		<Refused>
			{checked.refused}
			{#if checked.guess}<Button look="link" onclick={() => (typedBase = checked.guess as string)}
					>{wording.take2(checked.guess)}</Button
				>{/if}
		</Refused>
	{:else if checked && checked.asks.length > 0}
		<div class="asks mt-2 border-l-4 border-l-flag py-0.5 pr-0 pl-2.25 text-sm">
			{#each checked.asks as ask (ask)}<p>{ask}</p>{/each}
			{#if checked.guess}<p>
					<Button look="link" onclick={() => (typedBase = checked.guess as string)}
						>{wording.take2(checked.guess)}</Button
					>
				</p>{/if}
			<label><input type="checkbox" bind:checked={confirmed} /> {wording.thatIsRightTakeItAsIt}</label>
		</div>
	{/if}

	<fieldset class="mt-4">
		<legend class="text-sm font-semibold">{wording.whereItsContentComesFrom}</legend>
		{#each KINDS as [one, label, hint] (one)}
			<label
				class="kind mt-1.25 flex items-baseline gap-2.25 rounded-sm border border-rule bg-sheet px-2.5 py-1.75 [&.chosen]:border-sea"
				class:chosen={kind === one}
			>
				<input type="radio" name="kind" value={one} bind:group={kind} />
				<span><strong>{label}</strong> <span class="text-ink-soft">{hint}</span></span>
			</label>
		{/each}
	</fieldset>

	{#if kind === 'folder'}
		<Setting
			name={wording.folder}
			hint={folders.length > 0
				? wording.onTheMachineThatKephalonRuns(folders.join(' or '))
				: wording.noneMayBeReadYetStart}
		>
			<input class="font-mono" bind:value={folder} placeholder="/home/me/site/public" />
		</Setting>
		<Setting name={wording.leaveOut} hint={wording.patternsOfFilesThatAreNo}>
			<textarea class="font-mono" rows="2" bind:value={ignore}></textarea>
		</Setting>
	{:else if kind === 'table'}
		<Setting name={wording.file}
			><input
				type="file"
				accept=".csv,.tsv,.xlsx,.json,.ndjson,text/csv,application/json"
				onchange={chooseFile}
			/></Setting
		>
		{#if isLooking && !table}<p class="text-ink-soft" role="status">{wording.lookingAt(file?.name ?? '')}</p>{/if}
		{#if table}
			<p class="text-ink-soft">
				{wording.ofWhichCanBeMadeWhatEach(
					pagesInWords(table.rows).replace(/pages?/, table.rows === 1 ? wording.row : wording.rows),
					pagesInWords(table.pages),
					table.named === undefined ? wording.writtenIn(table.encoding) : wording.fromTheSheet(table.named)
				)}
			</p>
			{#if table.sheets && table.sheets.length > 1}
				<Setting name={wording.sheet}
					><Select
						value={chosenSheet ?? ''}
						choices={table.sheets}
						set={(sheet) => {
							chosenSheet = sheet;
							mapping = {};
							void look();
						}}
					/></Setting
				>
			{/if}
			<datalist id="meanings"
				>{#each MEANINGS as meaning (meaning)}<option value={meaning}></option>{/each}</datalist
			>
			<table class="mt-1 w-full text-sm">
				<thead
					><tr
						><th class="text-left font-semibold">{wording.column}</th><th class="text-left font-semibold"
							>{wording.meansTheField}</th
						><th class="text-left font-semibold">{wording.holds}</th><th class="text-left font-semibold"
							>{wording.inTheFirstRow}</th
						></tr
					></thead
				>
				<tbody>
					{#each table.columns as column (column)}
						<tr>
							<td class="border-t border-t-rule py-0.75 pr-2 pl-0 font-mono">{column}</td>
							<td class="border-t border-t-rule py-0.75 pr-2 pl-0"
								><input
									class="font-mono"
									aria-label={wording.meaningOf(column)}
									list="meanings"
									placeholder={wording.leftOut}
									bind:value={mapping[column]}
									onchange={again}
								/></td
							>
							<td class="border-t border-t-rule py-0.75 pr-2 pl-0 text-ink-soft">{table.readings[column]?.kind}</td>
							<td class="max-w-55 truncate border-t border-t-rule py-0.75 pr-2 pl-0 font-serif"
								>{toText(table.sheet[0]?.cells[column])}</td
							>
						</tr>
					{/each}
				</tbody>
			</table>
			{#each asked as [column, { ambiguous }] (column)}
				<p class="asks mt-2 border-l-4 border-l-flag py-0.5 pr-0 pl-2.25 text-sm">
					{column}: {ambiguous}.
					<label><input type="checkbox" bind:checked={dayFirst} onchange={again} /> {wording.theDayStandsFirst}</label>
				</p>
			{/each}
			{#if !Object.values(mapping).includes('path')}
				<label
					><input type="checkbox" bind:checked={pathFromTitle} onchange={again} />
					{wording.noColumnSaysWhereAPageStands}</label
				>
			{/if}
			<h2 class="mt-3.5 text-md font-semibold">{wording.whatTheFirstRowsAndTheOddest}</h2>
			<table class="mt-1 w-full text-sm" data-testid="sheet">
				<thead
					><tr
						><th class="text-left font-semibold">{wording.row2}</th><th class="text-left font-semibold"
							>{wording.path}</th
						><th class="text-left font-semibold">{wording.title}</th><th class="text-left font-semibold"
							>{wording.theRest}</th
						></tr
					></thead
				>
				<tbody>
					{#each table.sheet as { line, page } (line)}
						<tr>
							<td class="border-t border-t-rule py-0.75 pr-2 pl-0">{line}</td>
							{#if page}
								<td class="border-t border-t-rule py-0.75 pr-2 pl-0 font-mono"
									>{page.path}{page.state === 'live' ? '' : `, ${page.state}`}</td
								>
								<td class="border-t border-t-rule py-0.75 pr-2 pl-0 font-serif">{toText(page.fields.title)}</td>
								<td class="max-w-55 truncate border-t border-t-rule py-0.75 pr-2 pl-0"
									>{Object.entries(page.fields)
										.filter(([name]) => name !== 'title')
										.map(
											([name, value]) => `${name}: ${typeof value === 'object' ? JSON.stringify(value) : String(value)}`
										)
										.join(' · ')}</td
								>
							{:else}<td colspan="3" class="border-t border-t-rule py-0.75 pr-2 pl-0 text-ink-soft"
									>{wording.leftOut2(table.skipped.find(({ row }) => row === line)?.why ?? wording.noPath)}</td
								>{/if}
						</tr>
					{/each}
				</tbody>
			</table>
			{#if table.oddities > 0}
				<div class="asks mt-2 border-l-4 border-l-flag py-0.5 pr-0 pl-2.25 text-sm">
					<p>
						{wording.written(
							counted(table.oddities),
							table.oddities === 1 ? wording.oddThingWasBorneAndStaysAs : wording.oddThingsWereBorneAndStayAs
						)}
					</p>
					<ul>
						{#each table.odd as { line, what } (line)}<li class="wrap-anywhere">{wording.row3(line, what)}</li>{/each}
						{#each table.oddCells as { line, column, text, why } (`${line} ${column}`)}<li class="wrap-anywhere">
								{wording.row4(line, column, text, why)}
							</li>{/each}
					</ul>
				</div>
			{/if}
			<Setting name={wording.contentType} hint={wording.whatThesePagesAreSuchAs}><input bind:value={type} /></Setting>
		{/if}
	{:else if kind === 'web'}
		<Setting name={wording.address} hint={wording.aPageToBeginAtASitemap}>
			<input class="font-mono" bind:value={from} placeholder="https://www.site.example/sitemap.xml" />
		</Setting>
	{/if}
	{#if refused}<Refused>{refused}</Refused>{/if}
	{#if reading}<p class="mt-3 flex"><WorkLine work={reading} /></p>{/if}
	{#if taken}
		<div class="asks mt-2 border-l-4 border-l-flag py-0.5 pr-0 pl-2.25 text-sm" role="status">
			<h2 class="read mt-0 text-sm font-semibold">{wording.read(pagesInWords(taken.pages))}</h2>
			{#if taken.folder}<FolderFound
					found={taken.folder}
					pages={taken.pages}
					{busy}
					again={(more) => take(more)}
				/>{/if}
			{#if taken.skipped.length > 0}
				<p>{wording.leftOut3}</p>
				<ul>
					{#each taken.skipped as line, at (at)}<li class="wrap-anywhere">{line}</li>{/each}
				</ul>
			{/if}
			<Button look="main" onclick={() => taken && goOn(taken.name)}>{wording.goOn}</Button>
		</div>
	{:else}
		<p class="actions mt-4">
			<Button look="main" disabled={!isReady || busy} onclick={() => take()}
				>{busy ? wording.reading : wording.readTheContent}</Button
			>
		</p>
	{/if}
</section>
