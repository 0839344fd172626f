<script lang="ts">
	import type { Card } from '$core';
	import CardText from './CardText.svelte';

	/** What one reader of links makes of the head, in Kephalon's own neutral form. */
	let { card, shown }: { card: Card; shown: (address: string) => string } = $props();

	let broken = $state<string | undefined>();
	const picture = $derived(card.picture && shown(card.picture.address));
	/** An attachment and not an attribute: the page's policy allows no handlers in markup. */
	const whenBroken = (image: HTMLImageElement) => {
		const note = () => (broken = picture);
		image.addEventListener('error', note);
		if (image.complete && image.naturalWidth === 0) note();
		return () => image.removeEventListener('error', note);
	};
	const isSmall = $derived(card.picture?.small ?? false);
</script>

<figure data-reader={card.reader.id}>
	<figcaption><strong>{card.reader.name}</strong>, {card.reader.kind}</figcaption>
	{#if card.reader.form === 'wide'}
		<div class="wide" class:small={isSmall}>
			<div class="picture" style:aspect-ratio={isSmall ? undefined : card.reader.frame?.shape}>
				{#if picture && broken !== picture}
					<img src={picture} alt={card.picture?.alt ?? ''} {@attach whenBroken} />
				{:else}
					<span class="missing"
						>{picture ? 'The picture cannot be fetched' : 'No picture: the card stays blank here'}</span
					>
				{/if}
			</div>
			<div class="words">
				<p class="title serif"><CardText text={card.title} /></p>
				{#if card.description.shown}<p class="description"><CardText text={card.description} /></p>{/if}
				<p class="place mono">{card.host}</p>
			</div>
		</div>
		{#if isSmall}<p class="told">
				The picture is {card.picture?.width} pixels wide; from {card.reader.frame?.minWidth} it would fill the card.
			</p>{/if}
	{:else}
		<div class="listing">
			<p class="place">
				<span class="crumb">{card.siteName}</span> <span class="mono">{[card.host, ...card.crumbs].join(' / ')}</span>
			</p>
			<p class="title"><CardText text={card.title} /></p>
			<p class="description"><CardText text={card.description} /></p>
		</div>
	{/if}
</figure>

<style>
	figcaption {
		margin-bottom: 5px;
		font-size: 12.5px;
		color: var(--ink-soft);
	}
	figcaption strong {
		color: var(--ink);
	}
	.wide,
	.listing {
		border: 1px solid var(--rule);
		background: var(--sheet);
	}
	.wide.small {
		display: grid;
		grid-template-columns: 112px 1fr;
	}
	.picture {
		display: grid;
		overflow: hidden;
		place-items: center;
		background: var(--sheet-sunk);
	}
	.small .picture {
		position: relative;
		min-height: 112px;
	}
	.small img {
		position: absolute;
	}
	img {
		width: 100%;
		height: 100%;
		object-fit: cover;
	}
	.missing {
		padding: 12px;
		font-size: 12.5px;
		font-style: italic;
		color: var(--gone);
	}
	.words {
		border-top: 3px double var(--rule-strong);
		padding: 8px 10px 9px;
	}
	.small .words {
		border-top: 0;
		border-left: 3px double var(--rule-strong);
	}
	.title {
		font-size: 16px;
		font-weight: 600;
		line-height: 1.3;
	}
	.description {
		margin-top: 3px;
		font-size: 13px;
		line-height: 1.4;
	}
	.place {
		margin-top: 5px;
		font-size: 11.5px;
		color: var(--ink-soft);
	}
	.listing {
		padding: 9px 12px;
	}
	.listing .place {
		margin: 0 0 3px;
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	.crumb {
		font-weight: 600;
		color: var(--ink);
	}
	.listing .title {
		font-weight: 500;
		text-decoration: underline;
		text-decoration-thickness: 1px;
		text-underline-offset: 3px;
	}
	.told {
		margin-top: 4px;
		font-size: 12.5px;
		color: var(--flag);
	}
</style>
