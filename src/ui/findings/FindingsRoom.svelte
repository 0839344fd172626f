<script lang="ts">
	import { wording } from '$ui/words/en/findings';
	import { counted } from '$ui/words/speaking';
	import { keepFocus } from '$ui/parts/shown/focus';
	import Explain from '$ui/help/Explain.svelte';
	import Disclosure from '$ui/parts/shown/Disclosure.svelte';
	import Button from '$ui/parts/Button.svelte';
	import Told from '$ui/parts/Told.svelte';
	import { byWhom } from '$ui/people/byWhom';
	import { onMount, untrack } from 'svelte';
	import { call, isRefused } from '../client';
	import { TakingBack } from '$ui/parts/takingBack.svelte';
	import { benchAt, pagesAt } from '$ui/places/rooms';
	import RoomBar from '$ui/rooms/RoomBar.svelte';
	import { Neighbours } from '$ui/workspace/sharing';
	import { pagesInWords } from '$ui/parts/words';
	import type { FindingGroup } from '$server/findings/groups';
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
		message = isRefused(answer) ? answer.refused : wording.setAside3(group.says);
		if (isRefused(answer)) return;
		[leaving, reason] = ['', ''];
		neighbours.tell();
		await look();
		void keepFocus('main li[data-code] button', 'main button, main a');
	}
	async function takeUp(one: Suppression) {
		const answer = await call('POST /sites/{site}/findings', {
			site,
			body: { code: one.code, tag: one.tag, path: one.path, takeUp: true }
		});
		message = isRefused(answer) ? answer.refused : wording.itIsToldAgain;
		neighbours.tell();
		await look();
		void keepFocus('main li[data-code] button', 'main button, main a');
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
		[message, mended] = [wording.takenBack, undefined];
		neighbours.tell();
		await look();
	}
	const weightInWords = (weight: number) =>
		weight >= 6 ? wording.grave : weight >= 3 ? wording.worthMending : wording.slight;
	const total = $derived(groups?.reduce((sum, { pages }) => sum + pages, 0) ?? 0);
	const share = (count: number, pages: number) => (pages === 0 ? 0 : count / pages);
</script>

<div class="flex h-screen flex-col">
	<RoomBar {site} room="findings" />
	<main class="flex-1 overflow-y-auto px-5.5 pt-3.5 pb-10" id="room">
		<h1 class="text-md font-semibold">
			{wording.findings}
			<span class="ml-2.5 text-base font-normal text-ink-soft" role="status">
				{groups === undefined
					? ''
					: groups.length > 0
						? wording.inAll(
								groups.length,
								groups.length === 1 ? wording.kind : wording.kinds,
								counted(total),
								findings.state ? '.' : ''
							)
						: (findings.nothing ?? '')}
				{findings.state ?? ''}
			</span>
		</h1>
		{#if message}<Told>
				{#if taking.far}{taking.says} <Button look="link" onclick={taking.stop}>{wording.stop}</Button>
				{:else}
					{message}
					{#if mended !== undefined}<Button onclick={() => void takeBack()}>{wording.takeItBack}</Button>{/if}
				{/if}
			</Told>{/if}
		<ul class="mt-2.5 max-w-270">
			{#each groups ?? [] as group (keyOfKind(group))}
				<li
					class="grid grid-cols-[108px_1fr_auto] gap-3.5 border-t border-t-rule px-0 py-2.25 max-narrow:grid-cols-[1fr_auto] max-narrow:gap-y-1"
					data-code={group.code}
				>
					<div class="weight w{Math.min(10, group.weight)}" data-tip={wording.weightOf10(group.weight)}>
						<span
							class="inline-block border-l-6 border-l-rule-strong pl-2 text-sm in-[.w10]:border-l-gone in-[.w10]:font-semibold in-[.w3]:border-l-flag in-[.w4]:border-l-flag in-[.w5]:border-l-flag in-[.w6]:border-l-gone in-[.w6]:font-semibold in-[.w8]:border-l-gone in-[.w8]:font-semibold"
							>{weightInWords(group.weight)}</span
						>
					</div>
					<div class="what max-narrow:order-last max-narrow:col-span-full">
						<div class="flex items-baseline gap-1">
							<h2 class="text-md font-semibold">{group.says}</h2>
							<Explain
								topic={{ of: 'finding', code: group.code, says: group.says, mend: group.mend }}
								called={wording.thisFinding}
							/>
						</div>
						{#if group.example && group.example.says !== group.says}
							<p class="text-ink-soft">
								{wording.suchAs}
								<a class="font-mono" href={benchAt(site, group.example.path, group.tag || undefined)}
									>{group.example.path}</a
								>: {group.example.says}
							</p>
						{/if}
						<p class="text-ink-soft">{group.mend}</p>
						{#if group.isNew}<p class="text-ink-soft">{wording.newInNoReleaseYet}</p>
						{:else if group.since !== undefined}<p class="text-ink-soft">{wording.sinceRelease(group.since)}</p>{/if}
						{#if waysOf(group).length > 0}<MendList {site} mends={waysOf(group)} {done} />{/if}
						{#if group.each && group.each.length > 1}
							<Disclosure label={wording.all(group.each.length)}>
								<ul class="each max-h-55 overflow-y-auto text-sm">
									{#each group.each as one, at (at)}
										<li>
											{#if one.filter}<a
													class="underline underline-offset-2"
													href={pagesAt(site, one.filter as Record<string, string>)}>{one.says}</a
												>
											{:else if one.paths?.[0]}<a
													class="underline underline-offset-2"
													href={benchAt(site, one.paths[0], group.tag || undefined)}>{one.says}</a
												>
											{:else}{one.says}{/if}
											{#if one.mends?.length}<MendList {site} mends={one.mends} {done} />{/if}
										</li>
									{/each}
								</ul>
							</Disclosure>
						{/if}
						{#if leaving === keyOfKind(group)}
							<form
								class="mt-1.5 flex gap-2"
								onsubmit={(event) => {
									event.preventDefault();
									void setAside(group);
								}}
							>
								<input
									class="flex-1"
									aria-label={wording.whyItIsSetAside}
									placeholder={wording.whyOthersWillAsk}
									bind:value={reason}
								/>
								<Button disabled={reason.trim() === ''}>{wording.setItAsideEverywhere}</Button>
								<Button type="button" look="link" onclick={() => (leaving = '')}>{wording.leaveIt}</Button>
							</form>
						{/if}
					</div>
					<div
						class="do grid content-start [justify-items:end] gap-1 text-sm max-narrow:flex max-narrow:items-baseline max-narrow:gap-3"
					>
						{#if group.filter}<Button href={pagesAt(site, group.filter as Record<string, string>)}
								>{pagesInWords(group.pages)}</Button
							>
						{:else if group.each?.[0]?.filter}<Button
								href={pagesAt(site, group.each[0].filter as Record<string, string>)}
								>{pagesInWords(group.each[0].pages)}</Button
							>
						{:else if group.each?.[0]?.paths?.[0]}<Button
								href={benchAt(site, group.each[0].paths[0], group.tag || undefined)}>{wording.toThePage}</Button
							>{/if}
						{#if leaving !== keyOfKind(group)}<Button look="link" onclick={() => (leaving = keyOfKind(group))}
								>{wording.setAside}</Button
							>{/if}
					</div>
				</li>
			{/each}
		</ul>
		{#if aside.length > 0}
			<h2 class="text-md font-semibold">{wording.setAside2}</h2>
			<ul class="aside">
				{#each aside as one (`${keyOfKind(one)} ${one.path}`)}
					<li class="border-t border-t-rule px-0 py-1 text-sm">
						<span class="font-mono">{one.code}{one.tag ? wording.of(one.tag) : ''}</span>
						{one.path || wording.onEveryPage}: “{one.reason}”
						<span class="text-ink-soft">{byWhom(one.author)}, {one.made.slice(0, 10)}</span>
						<Button look="link" onclick={() => void takeUp(one)}>{wording.tellItAgain}</Button>
					</li>
				{/each}
			</ul>
		{/if}
		<section
			class="whole mt-6.5 grid grid-cols-[minmax(320px,5fr)_minmax(380px,7fr)] gap-7 border-t border-t-rule-strong pt-3.5 max-middle:grid-cols-1"
		>
			{#if data.releases.length > 0}<ReleaseChart releases={data.releases} />{/if}
			{#if spread}
				<WidthChart widths={spread.widths} step={WIDTH_STEP / 1000} />
				<figure class="col-span-full">
					<figcaption class="font-semibold">{wording.whichPagesHaveWhichTagsBy}</figcaption>
					<div class="overflow-x-auto">
						<table class="text-sm">
							<thead>
								<tr>
									<th class="py-px pr-0.75 pl-0 text-left whitespace-nowrap">{wording.type}</th>
									{#each MATRIX_TAGS as tag (tag)}<th
											class="tag py-px pr-0.75 pl-0 text-left align-bottom font-mono font-normal whitespace-nowrap"
											><span class="block [rotate:180deg] [writing-mode:vertical-rl]">{tag}</span></th
										>{/each}
								</tr>
							</thead>
							<tbody>
								{#each spread.matrix as { type, pages, counts } (type)}
									<tr>
										<th class="py-px pr-2.5 pl-0 text-left whitespace-nowrap"
											>{type} <span class="text-ink-soft">{counted(pages)}</span></th
										>
										{#each MATRIX_TAGS as tag, at (tag)}
											{@const has = counts[at] ?? 0}
											{@const part = share(has, pages)}
											<td class="py-px pr-0.75 pl-0 text-left whitespace-nowrap">
												<a
													class="block min-w-9.25 px-0.75 py-0 text-center [background:linear-gradient(to_right,var(--color-sea-wash)_calc(var(--part)_*_100%),transparent_0)] hover:underline max-middle:min-w-0"
													style:--part={part}
													href={pagesAt(site, { type, without: tag })}
													data-tip={wording.ofHaveItSeeThoseWithout(counted(has), counted(pages))}
													>{part === 1 ? wording.all2 : part === 0 ? '—' : `${Math.floor(part * 100)} %`}</a
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
