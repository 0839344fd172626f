<script lang="ts">
	import { kindOfReader } from '$core';
	import { wording } from '$ui/words/en/cards';
	import type { Card, CardPicture } from '$core';
	import CardText from './CardText.svelte';
	import type { Look } from './pictureLook';
	import CardWay, { type CardWays } from './CardWay.svelte';
	import PictureView from './PictureView.svelte';

	/** What one reader of links makes of the head, in Kephalon's own neutral form. */
	let { card, shown, ways }: { card: Card; shown: (address: string) => Look; ways?: CardWays | undefined } = $props();

	let broken = $state<Record<string, boolean>>({});
	const { form } = $derived(card.reader);
	const picture = $derived(card.picture);
	const isSmall = $derived(picture?.small ?? false);
	const frame = $derived(card.reader.frame);
	const shape = $derived(isSmall ? (frame?.smallShape ?? frame?.shape) : frame?.shape);
	const initial = $derived(card.siteName.slice(0, 1));
</script>

{#snippet image(one: CardPicture | undefined, whole = false)}
	{@const look = one && shown(one.address)}
	{#if one && look && look.src === ''}
		<span class="missing">{wording.beingDrawn}</span>
	{:else if one && look && !broken[look.src]}
		<PictureView {look} alt={one.alt ?? ''} {whole} broken={() => (broken[look.src] = true)} />
	{:else}
		<span class="missing">{one ? wording.thePictureCannotBeFetched : wording.noPictureTheCardStaysBlank}</span>
	{/if}
{/snippet}
{#snippet icon()}
	{@const look = card.icon === undefined ? undefined : shown(card.icon)}
	<span class="icon" aria-hidden="true"
		>{#if look && !broken[look.src]}<PictureView
				{look}
				broken={() => (broken[look.src] = true)}
			/>{:else}{initial}{/if}</span
	>
{/snippet}

<figure data-reader={card.reader.id} class="form-{form}">
	<figcaption><strong>{card.reader.name}</strong>, {kindOfReader(card.reader)}</figcaption>
	{#if form === 'wide' || form === 'timeline' || form === 'network'}
		<div class="card" class:small={isSmall}>
			<div class="picture" style:aspect-ratio={isSmall ? undefined : shape}>
				<CardWay {ways} tag={picture?.from ?? 'og:image'} isBlock>{@render image(picture)}</CardWay>
			</div>
			<div class="words">
				{#if form === 'timeline'}<p class="place first font-mono">
						<CardWay {ways} tag={card.placeFrom}>{card.host}</CardWay>
					</p>{/if}
				<p class="title font-serif"><CardWay {ways} tag={card.title.from}><CardText text={card.title} /></CardWay></p>
				{#if card.description.shown}<p class="description">
						<CardWay {ways} tag={card.description.from}><CardText text={card.description} /></CardWay>
					</p>{/if}
				{#if form !== 'timeline'}<p class="place font-mono">
						<CardWay {ways} tag={card.placeFrom}>{card.host}</CardWay>
					</p>{/if}
			</div>
		</div>
		{#if picture?.why}<p class="told">{wording.aSmallCard(picture.why)}</p>{/if}
	{:else if form === 'chat'}
		<div class="message">
			<p class="from">
				<CardWay {ways} tag="icon">{@render icon()}</CardWay><CardWay {ways} tag="og:site_name">{card.siteName}</CardWay
				>
			</p>
			<p class="title"><CardWay {ways} tag={card.title.from}><CardText text={card.title} /></CardWay></p>
			{#if card.description.shown}<p class="description">
					<CardWay {ways} tag={card.description.from}><CardText text={card.description} /></CardWay>
				</p>{/if}
			{#if card.pairs.length > 0}
				<dl>
					{#each card.pairs as pair, at (at)}<div>
							<dt>{pair.label}</dt>
							<dd>{pair.data}</dd>
						</div>{/each}
				</dl>
			{/if}
			{#if picture}<div class="picture free">
					<CardWay {ways} tag={picture.from} isBlock>{@render image(picture, true)}</CardWay>
				</div>{/if}
		</div>
	{:else if form === 'messenger'}
		<div class="bubble">
			<div class="square">
				<CardWay {ways} tag={picture?.from ?? 'og:image'} isBlock>{@render image(picture)}</CardWay>
			</div>
			<div>
				<p class="title"><CardWay {ways} tag={card.title.from}><CardText text={card.title} /></CardWay></p>
				{#if card.description.shown}<p class="description">
						<CardWay {ways} tag={card.description.from}><CardText text={card.description} /></CardWay>
					</p>{/if}
				<p class="place font-mono"><CardWay {ways} tag={card.placeFrom}>{card.host}</CardWay></p>
			</div>
		</div>
	{:else if form === 'pin'}
		<div class="pins">
			{#each card.pictures as one, at (at)}
				<div class="pin">
					<CardWay {ways} tag={one.from} isBlock>{@render image(one, true)}</CardWay>
					{#if one.width && one.height && one.width > one.height}<span class="told"
							>{wording.wideItGetsLittleRoomHere}</span
						>{/if}
				</div>
			{:else}<div class="pin">{@render image(undefined)}</div>{/each}
			<div class="pinned">
				<p class="title font-serif"><CardWay {ways} tag={card.title.from}><CardText text={card.title} /></CardWay></p>
				{#if card.description.shown}<p class="description">
						<CardWay {ways} tag={card.description.from}><CardText text={card.description} /></CardWay>
					</p>{/if}
			</div>
		</div>
	{:else if form === 'tab'}
		<div class="tab">
			<CardWay {ways} tag="icon">{@render icon()}</CardWay><span class="title"
				><CardWay {ways} tag={card.title.from}><CardText text={card.title} /></CardWay></span
			>
		</div>
	{:else}
		<div class="listing" class:narrow={card.reader.icon}>
			<p class="place">
				{#if card.reader.icon}<CardWay {ways} tag="icon">{@render icon()}</CardWay>{/if}<span class="crumb"
					><CardWay {ways} tag="og:site_name">{card.siteName}</CardWay></span
				>
				<span class="font-mono">{[card.host, ...card.crumbs].join(' / ')}</span>
			</p>
			<p class="title"><CardWay {ways} tag={card.title.from}><CardText text={card.title} /></CardWay></p>
			<p class="description">
				<CardWay {ways} tag={card.description.from}><CardText text={card.description} /></CardWay>
			</p>
		</div>
	{/if}
</figure>

<style>
	figure {
		contain: layout paint style;
	}
	figcaption {
		margin-bottom: 5px;
		font-size: 12.5px;
		color: var(--color-ink-soft);
	}
	figcaption strong {
		color: var(--color-ink);
	}
	.card,
	.listing,
	.message,
	.bubble,
	.pins {
		border: 1px solid var(--color-rule);
		background: var(--color-sheet);
	}
	.card.small {
		display: grid;
		grid-template-columns: 112px 1fr;
	}
	.picture {
		display: grid;
		overflow: hidden;
		place-items: center;
		background: var(--color-sunk);
	}
	.small .picture {
		position: relative;
		min-height: 112px;
	}
	.small .picture :global(.view) {
		position: absolute;
		inset: 0;
	}
	.missing {
		padding: 12px;
		font-size: 12.5px;
		font-style: italic;
		color: var(--color-gone);
	}
	.words {
		border-top: 3px double var(--color-rule-strong);
		padding: 8px 10px 9px;
	}
	.small .words {
		border-top: 0;
		border-left: 3px double var(--color-rule-strong);
	}
	.form-timeline .words {
		border-top: 1px dashed var(--color-rule-strong);
	}
	.form-network .words {
		border-top: 0;
		background: var(--color-sunk);
	}
	.title {
		font-size: 16px;
		font-weight: 600;
		line-height: 1.3;
		overflow-wrap: anywhere;
	}
	.form-timeline .title,
	.form-network .title,
	.message .title,
	.bubble .title,
	.pins .title {
		font-size: 14.5px;
	}
	.description {
		margin-top: 3px;
		font-size: 13px;
		line-height: 1.4;
		overflow-wrap: anywhere;
	}
	.place {
		margin-top: 5px;
		font-size: 11.5px;
		color: var(--color-ink-soft);
	}
	.place.first {
		margin: 0 0 2px;
	}
	.listing {
		padding: 9px 12px;
	}
	.listing .place {
		display: flex;
		gap: 6px;
		align-items: center;
		margin: 0 0 3px;
		overflow: hidden;
		white-space: nowrap;
	}
	.listing .place .font-mono {
		overflow: hidden;
		text-overflow: ellipsis;
	}
	.crumb,
	.from {
		font-weight: 600;
		color: var(--color-ink);
	}
	.listing .title {
		font-weight: 500;
		text-decoration: underline;
		text-decoration-thickness: 1px;
		text-underline-offset: 3px;
	}
	.narrow {
		max-width: 330px;
	}
	.told {
		margin-top: 4px;
		font-size: 12.5px;
		color: var(--color-flag);
	}
	.message {
		border-width: 0 0 0 3px;
		border-style: double;
		border-color: var(--color-rule-strong);
		padding: 8px 11px;
	}
	.from {
		display: flex;
		gap: 6px;
		align-items: center;
		margin-bottom: 3px;
		font-size: 12.5px;
	}
	.icon {
		display: inline-grid;
		flex: none;
		width: 16px;
		height: 16px;
		overflow: hidden;
		place-items: center;
		border-radius: 3px;
		background: var(--color-sea);
		font-size: 10px;
		font-weight: 700;
		color: var(--color-sea-ink);
	}
	dl {
		display: flex;
		gap: 24px;
		margin-top: 6px;
		font-size: 12.5px;
	}
	dt {
		font-weight: 600;
	}
	.free {
		margin-top: 7px;
		max-width: 240px;
	}
	.bubble {
		display: grid;
		grid-template-columns: 84px 1fr;
		gap: 10px;
		border-radius: 10px;
		padding: 8px;
	}
	.square {
		display: grid;
		width: 84px;
		height: 84px;
		overflow: hidden;
		place-items: center;
		border-radius: 5px;
		background: var(--color-sunk);
	}
	.square .missing {
		padding: 4px;
		font-size: 11px;
	}
	.pins {
		max-width: 236px;
		border-radius: 3px;
	}
	.pin {
		display: block;
		max-height: 300px;
		overflow: hidden;
		background: var(--color-sunk);
	}
	.pin .told {
		display: block;
		padding: 0 10px;
	}
	.pinned {
		padding: 8px 10px;
	}
	.tab {
		display: flex;
		gap: 7px;
		align-items: center;
		width: 230px;
		border: 1px solid var(--color-rule-strong);
		border-bottom: 0;
		border-radius: 7px 7px 0 0;
		background: var(--color-sheet);
		padding: 6px 10px;
	}
	.tab .title {
		overflow: hidden;
		font-size: 12px;
		font-weight: 400;
		text-overflow: clip;
		white-space: nowrap;
	}
</style>
