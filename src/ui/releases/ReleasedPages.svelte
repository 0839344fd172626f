<script lang="ts">
	import { wording } from '$ui/words/en/releases';
	import type { HeadJson, ReaderProfile } from '$core';
	import type { Look } from '$ui/cards/pictureLook';
	import ReaderCard from '$ui/cards/ReaderCard.svelte';
	import Button from '$ui/parts/Button.svelte';
	import { roving } from '$ui/parts/roving';
	import { benchAt } from '$ui/places/rooms';
	import { cardBy, changesOf, looksAlike, type TagChange } from './changes';
	import Difference from './Difference.svelte';

	/** Pages as they were and as they will be: their cards, then what differs in words; the arrows go through them. */
	let {
		site,
		pages,
		reader,
		asMarkup,
		shown,
		alone
	}: {
		site: string;
		pages: readonly {
			readonly path: string;
			readonly kind: string;
			readonly gone: readonly string[];
			readonly come: readonly string[];
			readonly before: HeadJson | null;
			readonly after: HeadJson | null;
		}[];
		/** Whose cards are drawn. */
		reader: ReaderProfile;
		asMarkup: boolean;
		shown: (address: string) => Look;
		/** Releases one page; without it nothing is released from here. */
		alone?: ((path: string) => void) | undefined;
	} = $props();

	const KINDS: Readonly<Record<TagChange['kind'], string>> = {
		changed: '',
		new: wording.isNew,
		gone: wording.goes,
		moved: wording.standsElsewhere
	};
	const kindInWords = (kind: string) =>
		['added', 'new'].includes(kind)
			? wording.kindNew
			: ['gone', 'removed'].includes(kind)
				? wording.kindGone
				: wording.kindChanged;
</script>

<ul class="pages" {@attach roving('[data-page]')}>
	{#each pages as page (page.path)}
		{@const [was, is] = [cardBy(reader, page.before), cardBy(reader, page.after)]}
		{@const changes = changesOf(page.before, page.after)}
		<!-- The arrows go from page to page. -->
		<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
		<li
			class="border-t border-t-rule px-0 py-2.5 [contain-intrinsic-size:auto_420px] [content-visibility:auto]"
			data-page={page.path}
			tabindex="0"
		>
			<p class="path flex flex-wrap items-baseline gap-x-2.5">
				<span
					class={[
						'kind text-sm text-ink-soft',
						['added', 'new'].includes(page.kind) && 'text-sea',
						['gone', 'removed'].includes(page.kind) && 'text-gone'
					]}>{kindInWords(page.kind)}</span
				>
				<a class="font-mono font-medium wrap-anywhere underline underline-offset-2" href={benchAt(site, page.path)}
					>{page.path}</a
				>
				{#if alone}<Button look="link" class="alone text-sm" onclick={() => alone(page.path)}
						>{wording.releaseItAlone}</Button
					>{/if}
			</p>
			{#if looksAlike(was, is)}
				<p class="text-sm text-ink-soft">{wording.itsCardByStaysAsItIs(reader.name)}</p>
			{:else}
				<div class="mt-1.5 grid max-w-190 grid-cols-2 gap-4 max-narrow:grid-cols-1" data-testid="cards">
					{#each [[wording.before, was], [wording.after, is]] as const as [when, card] (when)}
						<div class="min-w-0">
							<p class="text-sm text-ink-soft">{when}</p>
							{#if card}<ReaderCard {card} {shown} />{:else}<p class="text-sm">{wording.noPageNoCard}</p>{/if}
						</div>
					{/each}
				</div>
			{/if}
			{#if asMarkup}
				<Difference gone={page.gone} come={page.come} />
			{:else}
				<dl
					class="mt-1 grid max-w-190 grid-cols-[minmax(90px,auto)_minmax(0,1fr)] gap-x-3 text-sm"
					data-testid="changes"
				>
					{#each changes as { tag, kind, stretches } (tag + kind)}
						<dt class="font-mono wrap-anywhere text-ink-soft">{tag}</dt>
						<dd class="font-serif wrap-anywhere">
							{#if KINDS[kind]}<span class="font-sans text-ink-soft"
									>{KINDS[kind]}{stretches.length > 0 ? ': ' : ''}</span
								>{/if}{#each stretches as { text, is: how }, at (at)}{#if how === 'gone'}<del
										class="mr-1 text-gone decoration-gone">{text}</del
									>{:else if how === 'come'}<ins class="bg-sea-wash text-ink no-underline">{text}</ins
									>{:else}{text}{/if}{/each}
						</dd>
					{:else}
						<dt class="col-span-full text-ink-soft">{wording.noTagSaysAnythingElseAs}</dt>
					{/each}
				</dl>
			{/if}
		</li>
	{/each}
</ul>
