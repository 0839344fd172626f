<script lang="ts">
	import { wording } from '$ui/words/en/bench';
	import Button from '$ui/parts/Button.svelte';
	import Refused from '$ui/parts/Refused.svelte';
	import type { PagesLinking } from '$server/findings/links';
	import type { WhatLeads } from '$server/web/benchData';
	import { call, isRefused } from '$ui/client';
	import Sheet from '$ui/parts/Sheet.svelte';
	import Setting from '$ui/settings/Setting.svelte';

	/** A page is taken away: what leads to it and names it is shown before, and where that is to lead from then on. */
	let {
		open = $bindable(),
		site,
		path,
		isReleased,
		gone
	}: { open: boolean; site: string; path: string; isReleased: boolean; gone: (path: string) => void } = $props();

	let leads = $state.raw<WhatLeads | undefined>();
	let linking = $state.raw<PagesLinking | undefined>();
	let to = $state('');
	let refused = $state('');
	$effect(() => {
		if (!open) return;
		[leads, linking, to, refused] = [undefined, undefined, '', ''];
		const leaving = new AbortController();
		void call('GET /sites/{site}/page/leading', { site, query: { path } }).then((found) => {
			if (leaving.signal.aborted) return;
			if (isRefused(found)) refused = found.refused;
			else leads = found;
		});
		void call('GET /sites/{site}/page/linking', { site, query: { path }, signal: leaving.signal }).then((found) => {
			if (leaving.signal.aborted) return;
			if (isRefused(found)) refused = found.refused;
			else linking = found;
		});
		return () => leaving.abort();
	});

	async function take() {
		const done = await call('POST /sites/{site}/pages', {
			site,
			body: { do: 'remove', path, ...(to.trim() && { to: to.trim() }) }
		});
		if (isRefused(done)) return void (refused = done.refused);
		open = false;
		gone(done.path);
	}
</script>

<Sheet bind:open title={wording.takeAway(path)}>
	{#if leads}
		<ul class="mx-0 my-2 list-disc pl-4.5 text-base">
			{#if leads.isHome}<li>
					<strong>{wording.itIsTheHomePage}</strong>
					{wording.noReleaseIsMadeUntilAnother}
				</li>{/if}
			<li>{wording.itGoesWithAllThatWasWritten}</li>
			{#if isReleased}<li>{wording.visitorsSeeItUntilTheNext}</li>{/if}
			{#if leads.naming.length > 0}
				<li>
					{wording.itAsAVersionInAnother(
						leads.naming.length === 1 ? wording.onePageNames : wording.pagesName(leads.naming.length)
					)} <span class="font-mono">{leads.naming.slice(0, 5).join(', ')}</span>
				</li>
			{/if}
			{#if leads.former.length > 0}
				<li>
					{wording.toIt(
						leads.former.length === 1 ? wording.aFormerPathLeads : wording.formerPathsLead(leads.former.length)
					)}
					<span class="font-mono">{leads.former.slice(0, 5).join(', ')}</span>
				</li>
			{/if}
			<li class={[!linking?.pages && 'text-ink-soft']} role="status">
				{#if !linking}{wording.lookingThroughTheTextsOfThe}
				{:else if linking.pages === 0}{wording.noOtherPagesTextLinksToIt}
				{:else}
					{wording.toIt(
						linking.pages === 1 ? wording.theTextOfOnePageLinks : wording.theTextsOfPagesLink(linking.pages)
					)}
					<span class="font-mono">{linking.first.join(', ')}{linking.pages > linking.first.length ? ' …' : ''}</span>
				{/if}
			</li>
		</ul>
		<Setting name={wording.whoAsksForItIsLedTo} hint={wording.thePathOfAnotherPageWithout}>
			<input class="font-mono" placeholder="/" bind:value={to} />
		</Setting>
	{:else if !refused}<p class="text-ink-soft" role="status">{wording.lookingAtWhatLeadsToIt}</p>{/if}
	{#if refused}<Refused>{refused}</Refused>{/if}
	<p class="actions mt-3 flex gap-2.5">
		<Button look="main" disabled={!leads || (to.trim() !== '' && !to.trim().startsWith('/'))} onclick={take}
			>{wording.takeItAway}</Button
		>
		<Button onclick={() => (open = false)}>{wording.leaveIt}</Button>
	</p>
</Sheet>
