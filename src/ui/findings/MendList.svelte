<script lang="ts">
	import { wording } from '$ui/words/en/findings';
	import { counted } from '$ui/words/speaking';
	import Button from '$ui/parts/Button.svelte';
	import Refused from '$ui/parts/Refused.svelte';
	import type { Reach } from '$core';
	import { call, doEdit, isRefused, NO_ANSWER, reach } from '$ui/client';
	import { onDestroy } from 'svelte';
	import { pagesInWords } from '$ui/parts/words';
	import type { ToldMend } from '$server/findings/mends';
	import type { Tried } from '$server/findings/mendWords';

	/** The ways to mend a finding that are edits: what one would change is counted before it is done. */
	let {
		site,
		mends,
		done
	}: { site: string; mends: readonly ToldMend[]; done: (told: string, edit: number | undefined) => void } = $props();

	let chosen = $state.raw<ToldMend | undefined>();
	let found = $state.raw<Reach | 'counting' | undefined>();
	let why = $state('');
	let refused = $state('');
	let busy = $state(false);
	let stop: AbortController | undefined;
	onDestroy(() => stop?.abort());

	async function look(mend: ToldMend) {
		stop?.abort();
		const mine = (stop = new AbortController());
		[chosen, found, refused, why] = [mend, undefined, '', ''];
		if ('actions' in mend) return;
		found = 'counting';
		const counted = await reach(site, mend.edit, mine.signal).catch(() => NO_ANSWER);
		if (mine.signal.aborted) return;
		if (isRefused(counted)) [found, why] = [undefined, counted.refused];
		else found = counted;
	}
	async function mendNow(mend: ToldMend) {
		busy = true;
		const answer = await ('actions' in mend
			? call('POST /sites/{site}/pages', { site, body: { actions: mend.actions } })
			: doEdit(site, mend.edit));
		busy = false;
		if (isRefused(answer)) return void (refused = answer.refused);
		chosen = undefined;
		done(wording.mended(mend.says), answer.edit);
	}
	const inTried = ({ on, mended, leaves }: Tried) =>
		[
			on > 1 ? wording.triedOnOfThePages(on, mended === on ? wording.mendsAllOfThem : wording.mends(mended)) : '',
			leaves ? wording.itLeaves(leaves) : ''
		].join(' ');
	const inWords = (count: number, what: string) => (count > 0 ? `; ${counted(count)} ${what}` : '');
</script>

<ul class="mends mt-1 text-sm">
	{#each mends as mend, at (at)}
		<li class="mt-0.75 border-l-3 border-l-sea pl-2 wrap-anywhere">
			{#if chosen !== mend}
				<Button look="link" class="text-left" onclick={() => void look(mend)}>{mend.says}</Button>
				{#if mend.tried && (mend.tried.on > 1 || mend.tried.leaves)}<span class="text-ink-soft" data-testid="tried"
						>{inTried(mend.tried)}</span
					>{/if}
			{:else}
				<p><strong>{mend.says}</strong></p>
				<p role="status" data-testid="mend-reach">
					{#if 'actions' in mend}{wording.andNothingElse(
							mend.actions.length === 1 ? wording.oneLinkChanges : wording.linksChange(mend.actions.length)
						)}
					{:else if found === 'counting'}{wording.countingThePagesItReaches}
					{:else if found}{wording.wouldChange(
							pagesInWords(found.changed),
							inWords(found.better, wording.forTheBetter),
							inWords(found.worse, wording.forTheWorse),
							inWords(found.sayThemselves, wording.sayItThemselvesAndKeepThat)
						)}
					{:else}{wording.howFarItReachesCouldNotBe(why)}{/if}
				</p>
				{#if typeof found === 'object'}
					<ul class="sample">
						{#each found.worst.slice(0, 3) as page (page.path)}
							<li>
								<span class="font-mono">{page.path}</span>:
								<span class="mr-1.5 font-serif line-through opacity-75">{page.before || wording.nothing}</span>
								<span class="font-serif">{page.after || wording.nothing}</span>
							</li>
						{/each}
					</ul>
				{/if}
				{#if refused}<Refused>{refused}</Refused>{/if}
				<Button look="main" disabled={busy || found === 'counting'} onclick={() => void mendNow(mend)}
					>{busy ? wording.mending : wording.mendItSo}</Button
				>
				<Button look="link" class="text-left" onclick={() => (chosen = undefined)}>{wording.leaveIt}</Button>
			{/if}
		</li>
	{/each}
</ul>
