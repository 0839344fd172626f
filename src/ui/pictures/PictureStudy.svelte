<script lang="ts">
	import {
		describeFinding,
		cutSettingOf,
		keptCopyOf,
		measureCut,
		MOST_ZOOM,
		SHAPE_NAMES,
		SHAPES,
		findInPicture,
		type Area,
		type Picture,
		type PictureEdit,
		type Shape
	} from '$core';
	import type { PictureUse } from '$server/heads/uses';
	import FocusPad from './FocusPad.svelte';
	import PictureView from '$ui/cards/PictureView.svelte';
	import { factsInWords } from '$ui/parts/words';

	/** One picture: the point that stays in view, its shapes, the text that stands for it, and what is weak in it. */
	let {
		picture,
		src,
		languages,
		use,
		spoken = '',
		change
	}: {
		picture: Picture;
		/** Where the whole of it can be seen from here. */
		src: string;
		/** The languages of the site, the default first. */
		languages: readonly string[];
		use: PictureUse | undefined;
		/** The words that stand for it on the page in view. */
		spoken?: string;
		change: (changes: PictureEdit['changes']) => void;
	} = $props();

	/** The shape that is adjusted by itself; undefined: the point for all. */
	let chosen = $state<Shape | undefined>();
	const kept = $derived(keptCopyOf(picture));
	const size = $derived(kept ?? { width: picture.width ?? 1, height: picture.height ?? 1 });
	const setting = $derived(cutSettingOf(picture, chosen ?? 'wide'));
	const focus: readonly [number, number] = $derived(chosen ? setting.focus : (picture.focus ?? [0.5, 0.5]));
	const partOf = (shape: Shape) => {
		const { focus: point, zoom } = cutSettingOf(picture, shape);
		return measureCut({ shape, focus: [point[0] * 1000, point[1] * 1000], zoom: zoom * 100 }, size);
	};
	const boxOf = (shape: Shape): Area => {
		const { box } = partOf(shape);
		return [box.left / size.width, box.top / size.height, box.width / size.width, box.height / size.height];
	};
	const weaknesses = $derived(findInPicture({ ...picture, alt: picture.alt || spoken }, use).map(describeFinding));

	function setCut(shape: Shape, cut: { focus: readonly [number, number]; zoom?: number } | undefined) {
		const { [shape]: _old, ...rest } = picture.cuts ?? {};
		const cuts = cut ? { ...rest, [shape]: cut } : rest;
		change({ cuts: Object.keys(cuts).length > 0 ? cuts : null });
	}
	function move(point: [number, number]) {
		if (chosen) setCut(chosen, { ...picture.cuts?.[chosen], focus: point });
		else change({ focus: point });
	}
	function setZoom(event: Event & { currentTarget: HTMLInputElement }) {
		const zoom = Number(event.currentTarget.value);
		if (chosen) setCut(chosen, { focus: setting.focus, ...(zoom > 1 && { zoom }) });
	}
	function setAlt(language: string | undefined, text: string) {
		if (language === undefined) return change({ alt: text === '' ? null : text });
		const { [language]: _old, ...rest } = picture.alts ?? {};
		const alts = text === '' ? rest : { ...rest, [language]: text };
		change({ alts: Object.keys(alts).length > 0 ? alts : null });
	}
</script>

<div class="study">
	<FocusPad
		{src}
		alt={picture.alt ?? ''}
		{focus}
		box={chosen && boxOf(chosen)}
		text={picture.text}
		faces={picture.faces}
		{move}
	/>
	<p class="facts quiet">{factsInWords(picture)}</p>
	{#if kept}
		<p class="quiet hint">
			{#if chosen}
				Only the {SHAPES[chosen].ratio} cut moves now.
				<button class="link" onclick={() => (chosen = undefined)}>Move all again</button>
			{:else}
				The point stays in view in every shape. Choose a shape to move it alone.
			{/if}
		</p>
		<ul class="shapes" aria-label="The shapes it is cut to">
			{#each SHAPE_NAMES as shape (shape)}
				{@const part = partOf(shape)}
				<li class={shape}>
					<button
						aria-pressed={chosen === shape}
						data-shape={shape}
						onclick={() => (chosen = chosen === shape ? undefined : shape)}
					>
						<span class="cut" style:aspect-ratio="{SHAPES[shape].width} / {SHAPES[shape].height}">
							<PictureView look={{ src, part: { box: part.box, width: size.width, height: size.height } }} />
						</span>
						<span class="name"
							>{SHAPES[shape].ratio}{#if picture.cuts?.[shape]}<span class="own">, by itself</span>{/if}</span
						>
						<span class="quiet"
							>{part.width} × {part.height}{part.width < SHAPES[shape].width
								? `, ${SHAPES[shape].width} is wanted`
								: ''}</span
						>
					</button>
				</li>
			{/each}
		</ul>
		{#if chosen}
			<div class="zoom">
				<label
					>How near <input
						type="range"
						min="1"
						max={MOST_ZOOM}
						step="0.05"
						value={setting.zoom}
						oninput={setZoom}
					/></label
				>
				{#if picture.cuts?.[chosen]}
					<button class="plain-button" onclick={() => chosen && setCut(chosen, undefined)}
						>Back to the common point</button
					>
				{/if}
			</div>
		{/if}
	{:else}
		<p class="quiet hint">The library holds no copy of it: readers get it whole. Choose or drop the file to cut it.</p>
	{/if}

	{#if weaknesses.length > 0}
		<ul class="weak" aria-label="What is weak in the picture">
			{#each weaknesses as weakness, at (at)}<li>{weakness}</li>{/each}
		</ul>
	{/if}

	<label class="alt"
		><span>What it shows, in words</span>
		<input
			class="serif"
			value={picture.alt ?? ''}
			placeholder="for readers who cannot see it"
			oninput={(event) => setAlt(undefined, event.currentTarget.value)}
		/></label
	>
	{#if languages.length > 1}
		{#each languages.slice(1) as language (language)}
			<label class="alt"
				><span>The same in <span class="mono">{language}</span></span>
				<input
					class="serif"
					lang={language}
					value={picture.alts?.[language] ?? ''}
					oninput={(event) => setAlt(language, event.currentTarget.value)}
				/></label
			>
		{/each}
	{/if}
</div>

<style>
	.facts {
		margin-top: 4px;
		font-size: 12.5px;
	}
	.hint {
		margin-top: 2px;
		font-size: 12.5px;
	}
	.shapes {
		display: flex;
		flex-wrap: wrap;
		gap: 8px 10px;
		align-items: start;
		margin-top: 6px;
	}
	.shapes li {
		width: min-content;
		min-width: 74px;
	}
	.shapes button {
		display: block;
		font-size: 11.5px;
		line-height: 1.25;
		text-align: left;
	}
	.cut {
		display: block;
		height: 76px;
		overflow: hidden;
		outline: 1px solid var(--rule-strong);
	}
	.shapes [aria-pressed='true'] .cut {
		outline: 3px solid var(--sea);
	}
	.name {
		display: block;
		margin-top: 3px;
		font-weight: 600;
	}
	.own {
		font-weight: 400;
	}
	.zoom {
		display: flex;
		gap: 12px;
		align-items: center;
		margin-top: 6px;
		font-size: 13px;
	}
	.zoom label {
		display: flex;
		flex: 1;
		gap: 8px;
		align-items: center;
		white-space: nowrap;
	}
	.zoom input {
		flex: 1;
		min-width: 60px;
		padding: 0;
	}
	.weak {
		margin-top: 8px;
		border-left: 4px solid var(--flag);
		background: var(--flag-wash);
		padding: 6px 10px;
		font-size: 13px;
	}
	.alt {
		display: block;
		margin-top: 9px;
		font-size: 13px;
		font-weight: 600;
	}
	.alt input {
		width: 100%;
		font-weight: 400;
	}
</style>
