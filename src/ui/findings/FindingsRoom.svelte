<script lang="ts">
	import { byWhom } from '$ui/people/byWhom';
	import { onMount, untrack } from 'svelte';
	import { call, isRefused } from '../client';
	import { TakingBack } from '$ui/parts/takingBack.svelte';
	import { benchAt, pagesAt } from '$ui/rooms/rooms';
	import RoomBar from '$ui/rooms/RoomBar.svelte';
	import { Neighbours } from '$ui/workspace/sharing';
	import { pagesInWords } from '$ui/parts/words';
	import type { FindingGroup } from '$server/findings/whole';
	import type { FindingsOfRelease } from '$server/store/releases/releases';
	import type { Suppression } from '$server/store/state/suppressions';
	import { Findings } from './looking.svelte';
	import { keyOfKind, MATRIX_TAGS, WIDTH_STEP } from '$core';
	import MendList from './MendList.svelte';
	import ReleaseChart from './ReleaseChart.svelte';
	import WidthChart from './WidthChart.svelte';

	interface Data {
		readonly site: { readonly name: string };
		readonly releases: readonly FindingsOfRelease[];
	}
	let { data }: { data: Data } = $props();

	const site = untrack(() => data.site.name);
	const neighbours = new Neighbours(site);
	const findings = new Findings(site);
	const groups = $derived(findings.groups);
	const spread = $derived(findings.told?.counted?.spread);
	const aside = $derived(findings.told?.aside ?? []);
	let message = $state('');
	/** The kind that is being set aside, and why. */
	let leaving = $state('');
	let reason = $state('');

	const look = () => findings.look();
	onMount(() => {
		void look();
		const unheard = neighbours.listen(() => void look());
		return () => {
			findings.leave();
			unheard();
		};
	});
	async function setAside(group: FindingGroup) {
		const answer = await call('POST /sites/{site}/findings', {
			site,
			body: { code: group.code, tag: group.tag, reason }
		});
		message = isRefused(answer) ? answer.refused : `Set aside: ${group.says}.`;
		if (isRefused(answer)) return;
		[leaving, reason] = ['', ''];
		neighbours.tell();
		await look();
	}
	async function takeUp(one: Suppression) {
		const answer = await call('POST /sites/{site}/findings', {
			site,
			body: { code: one.code, tag: one.tag, path: one.path, takeUp: true }
		});
		message = isRefused(answer) ? answer.refused : 'It is told again.';
		neighbours.tell();
		await look();
	}
	/** The ways for all of a kind; where there is only one of it, its own. */
	const waysOf = (group: FindingGroup) =>
		group.mends?.length ? group.mends : group.each?.length === 1 ? (group.each[0]?.mends ?? []) : [];
	let mended = $state<number | undefined>();
	async function done(told: string, edit: number | undefined) {
		[message, mended] = [told, edit];
		neighbours.tell();
		await look();
	}
	const taking = new TakingBack();
	async function takeBack() {
		if (mended === undefined) return;
		const refusal = await taking.run(site, mended);
		if (refusal) return void (message = refusal.refused);
		[message, mended] = ['Taken back.', undefined];
		neighbours.tell();
		await look();
	}
	const weightInWords = (weight: number) => (weight >= 6 ? 'grave' : weight >= 3 ? 'worth mending' : 'slight');
	const total = $derived(groups?.reduce((sum, { pages }) => sum + pages, 0) ?? 0);
	const share = (count: number, pages: number) => (pages === 0 ? 0 : count / pages);
</script>

<div class="whole-screen">
	<RoomBar {site} room="findings" />
	<main id="room">
		<h1>
			Findings
			<span class="quiet" role="status">
				{groups === undefined
					? ''
					: groups.length > 0
						? `${groups.length} ${groups.length === 1 ? 'kind' : 'kinds'}, ${total.toLocaleString('en')} in all${findings.state ? '.' : ''}`
						: (findings.nothing ?? '')}
				{findings.state ?? ''}
			</span>
		</h1>
		{#if message}<p class="message" role="status">
				{#if taking.far}{taking.says} <button class="link" onclick={taking.stop}>Stop</button>
				{:else}
					{message}
					{#if mended !== undefined}<button class="plain-button" onclick={() => void takeBack()}>Take it back</button
						>{/if}
				{/if}
			</p>{/if}
		<ul class="kinds">
			{#each groups ?? [] as group (keyOfKind(group))}
				<li data-code={group.code}>
					<div class="weight w{Math.min(10, group.weight)}" title="Weight {group.weight} of 10">
						<span>{weightInWords(group.weight)}</span>
					</div>
					<div class="what">
						<h2>
							{group.says}
						</h2>
						{#if group.example && group.example.says !== group.says}
							<p class="quiet">
								Such as <a class="mono" href={benchAt(site, group.example.path, group.tag || undefined)}
									>{group.example.path}</a
								>: {group.example.says}
							</p>
						{/if}
						<p>{group.mend}</p>
						{#if group.isNew}<p class="quiet">New: in no release yet.</p>
						{:else if group.since !== undefined}<p class="quiet">Since release {group.since}.</p>{/if}
						{#if waysOf(group).length > 0}<MendList {site} mends={waysOf(group)} {done} />{/if}
						{#if group.each && group.each.length > 1}
							<details>
								<summary>All {group.each.length}</summary>
								<ul class="each">
									{#each group.each as one, at (at)}
										<li>
											{#if one.filter}<a href={pagesAt(site, one.filter as Record<string, string>)}>{one.says}</a>
											{:else if one.paths?.[0]}<a href={benchAt(site, one.paths[0], group.tag || undefined)}
													>{one.says}</a
												>
											{:else}{one.says}{/if}
											{#if one.mends?.length}<MendList {site} mends={one.mends} {done} />{/if}
										</li>
									{/each}
								</ul>
							</details>
						{/if}
						{#if leaving === keyOfKind(group)}
							<form
								onsubmit={(event) => {
									event.preventDefault();
									void setAside(group);
								}}
							>
								<input aria-label="Why it is set aside" placeholder="Why: others will ask" bind:value={reason} />
								<button class="plain-button" disabled={reason.trim() === ''}>Set it aside everywhere</button>
								<button type="button" class="link" onclick={() => (leaving = '')}>Leave it</button>
							</form>
						{/if}
					</div>
					<div class="do">
						{#if group.filter}<a class="plain-button" href={pagesAt(site, group.filter as Record<string, string>)}
								>{pagesInWords(group.pages)}</a
							>
						{:else if group.each?.[0]?.filter}<a
								class="plain-button"
								href={pagesAt(site, group.each[0].filter as Record<string, string>)}
								>{pagesInWords(group.each[0].pages)}</a
							>
						{:else if group.each?.[0]?.paths?.[0]}<a
								class="plain-button"
								href={benchAt(site, group.each[0].paths[0], group.tag || undefined)}>To the page</a
							>{/if}
						{#if leaving !== keyOfKind(group)}<button class="link" onclick={() => (leaving = keyOfKind(group))}
								>Set aside …</button
							>{/if}
					</div>
				</li>
			{/each}
		</ul>
		{#if aside.length > 0}
			<h2>Set aside</h2>
			<ul class="aside">
				{#each aside as one (`${keyOfKind(one)} ${one.path}`)}
					<li>
						<span class="mono">{one.code}{one.tag ? ` of ${one.tag}` : ''}</span>
						{one.path || 'on every page'}: “{one.reason}”
						<span class="quiet">{byWhom(one.author)}, {one.made.slice(0, 10)}</span>
						<button class="link" onclick={() => void takeUp(one)}>Tell it again</button>
					</li>
				{/each}
			</ul>
		{/if}
		<section class="whole">
			{#if data.releases.length > 0}<ReleaseChart releases={data.releases} />{/if}
			{#if spread}
				<WidthChart widths={spread.widths} step={WIDTH_STEP / 1000} />
				<figure class="matrix">
					<figcaption>Which pages have which tags, by type</figcaption>
					<div class="scroll">
						<table>
							<thead>
								<tr>
									<th>Type</th>
									{#each MATRIX_TAGS as tag (tag)}<th class="mono tag"><span>{tag}</span></th>{/each}
								</tr>
							</thead>
							<tbody>
								{#each spread.matrix as { type, pages, counts } (type)}
									<tr>
										<th>{type} <span class="quiet">{pages.toLocaleString('en')}</span></th>
										{#each MATRIX_TAGS as tag, at (tag)}
											{@const has = counts[at] ?? 0}
											{@const part = share(has, pages)}
											<td>
												<a
													style:--part={part}
													href={pagesAt(site, { type, without: tag })}
													title="{has.toLocaleString('en')} of {pages.toLocaleString('en')} have it; see those without"
													>{part === 1 ? 'all' : part === 0 ? '—' : `${Math.floor(part * 100)} %`}</a
												>
											</td>
										{/each}
									</tr>
								{/each}
							</tbody>
						</table>
					</div>
				</figure>
			{/if}
		</section>
	</main>
</div>

<style>
	main {
		flex: 1;
		overflow-y: auto;
		padding: 14px 22px 40px;
	}
	h1 {
		font-size: 17px;
		font-weight: 600;
	}
	h1 span {
		margin-left: 10px;
		font-size: 14px;
		font-weight: 400;
	}
	.kinds {
		margin-top: 10px;
		max-width: 1080px;
	}
	.kinds > li {
		display: grid;
		grid-template-columns: 108px 1fr auto;
		gap: 14px;
		border-top: 1px solid var(--rule);
		padding: 9px 0;
	}
	.weight span {
		display: inline-block;
		border-left: 6px solid var(--rule-strong);
		padding-left: 8px;
		font-size: 13px;
	}
	.w6 span,
	.w8 span,
	.w10 span {
		border-left-color: var(--gone);
		font-weight: 600;
	}
	.w3 span,
	.w4 span,
	.w5 span {
		border-left-color: var(--flag);
	}
	h2 {
		font-size: 15px;
		font-weight: 600;
	}
	.kinds p {
		color: var(--ink-soft);
	}
	.do {
		display: grid;
		gap: 4px;
		justify-items: end;
		align-content: start;
		font-size: 13px;
	}
	form {
		display: flex;
		gap: 8px;
		margin-top: 6px;
	}
	form input {
		flex: 1;
	}
	.each {
		max-height: 220px;
		overflow-y: auto;
		font-size: 13px;
	}
	.each a {
		text-decoration: underline;
		text-underline-offset: 2px;
	}
	.aside li {
		border-top: 1px solid var(--rule);
		padding: 4px 0;
		font-size: 13px;
	}
	.whole {
		display: grid;
		grid-template-columns: minmax(320px, 5fr) minmax(380px, 7fr);
		gap: 28px;
		margin-top: 26px;
		border-top: 1px solid var(--rule-strong);
		padding-top: 14px;
	}
	@media (max-width: 900px) {
		.whole {
			grid-template-columns: minmax(0, 1fr);
		}
		.matrix td a {
			min-width: 0;
		}
	}
	figcaption {
		font-weight: 600;
	}
	.matrix {
		grid-column: 1 / -1;
	}
	.scroll {
		overflow-x: auto;
	}
	table {
		font-size: 12.5px;
	}
	th,
	td {
		padding: 1px 3px 1px 0;
		text-align: left;
		white-space: nowrap;
	}
	tbody th {
		padding-right: 10px;
	}
	/* Types are many, tags are these: their names stand upright. */
	.tag {
		vertical-align: bottom;
		font-weight: 400;
	}
	.tag span {
		display: block;
		writing-mode: vertical-rl;
		rotate: 180deg;
	}
	td a {
		display: block;
		min-width: 37px;
		background: linear-gradient(to right, var(--sea-wash) calc(var(--part) * 100%), transparent 0);
		padding: 0 3px;
		text-align: center;
	}
	td a:hover {
		text-decoration: underline;
	}
</style>
