<script lang="ts">
	import { wording } from '$ui/words/en/pictures';
	import Button from '$ui/parts/Button.svelte';
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
	import { factsInWords, sentInWords } from '$ui/parts/words';

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
	<p class="facts mt-1 text-sm text-ink-soft">{factsInWords(picture)}</p>
	{#if sentInWords(picture)}<p class="text-sm text-ink-soft">{sentInWords(picture)}</p>{/if}
	{#if kept}
		<p class="mt-0.5 text-sm text-ink-soft">
			{#if chosen}
				{wording.onlyTheCutMovesNow(SHAPES[chosen].ratio)}
				<Button look="link" onclick={() => (chosen = undefined)}>{wording.moveAllAgain}</Button>
			{:else}
				{wording.thePointStaysInViewInEvery}
			{/if}
		</p>
		<ul class="shapes mt-1.5 flex flex-wrap items-start gap-x-2.5 gap-y-2" aria-label={wording.theShapesItIsCutTo}>
			{#each SHAPE_NAMES as shape (shape)}
				{@const part = partOf(shape)}
				<li class={[shape, 'w-min min-w-18.5']}>
					<button
						class="block text-left text-2xs leading-[1.25]"
						aria-pressed={chosen === shape}
						data-shape={shape}
						onclick={() => (chosen = chosen === shape ? undefined : shape)}
					>
						<span
							class="block h-19 overflow-hidden outline-1 outline-rule-strong in-[[aria-pressed='true']]:outline-3 in-[[aria-pressed='true']]:outline-sea"
							style:aspect-ratio="{SHAPES[shape].width} / {SHAPES[shape].height}"
						>
							<PictureView look={{ src, part: { box: part.box, width: size.width, height: size.height } }} />
						</span>
						<span class="name mt-0.75 block font-semibold"
							>{SHAPES[shape].ratio}{#if picture.cuts?.[shape]}<span class="font-normal">{wording.byItself}</span
								>{/if}</span
						>
						<span class="text-ink-soft"
							>{part.width} × {part.height}{part.width < SHAPES[shape].width
								? wording.isWanted(SHAPES[shape].width)
								: ''}</span
						>
					</button>
				</li>
			{/each}
		</ul>
		{#if chosen}
			<div class="mt-1.5 flex items-center gap-3 text-sm">
				<label class="flex flex-1 items-center gap-2 whitespace-nowrap"
					>{wording.howNear}
					<input
						class="min-w-15 flex-1 p-0"
						type="range"
						min="1"
						max={MOST_ZOOM}
						step="0.05"
						value={setting.zoom}
						oninput={setZoom}
					/></label
				>
				{#if picture.cuts?.[chosen]}
					<Button onclick={() => chosen && setCut(chosen, undefined)}>{wording.backToTheCommonPoint}</Button>
				{/if}
			</div>
		{/if}
	{:else}
		<p class="mt-0.5 text-sm text-ink-soft">
			{wording.theLibraryHoldsNoCopyOfIt}
		</p>
	{/if}

	{#if weaknesses.length > 0}
		<ul
			class="weak mt-2 border-l-4 border-l-flag bg-flag-wash px-2.5 py-1.5 text-sm"
			aria-label={wording.whatIsWeakInThePicture}
		>
			{#each weaknesses as weakness, at (at)}<li>{weakness}</li>{/each}
		</ul>
	{/if}

	<label class="alt mt-2.25 block text-sm font-semibold"
		><span>{wording.whatItShowsInWords}</span>
		<input
			class="w-full font-serif font-normal"
			value={picture.alt ?? ''}
			placeholder={wording.forReadersWhoCannotSeeIt}
			oninput={(event) => setAlt(undefined, event.currentTarget.value)}
		/></label
	>
	{#if languages.length > 1}
		{#each languages.slice(1) as language (language)}
			<label class="alt mt-2.25 block text-sm font-semibold"
				><span>{wording.theSameIn} <span class="font-mono">{language}</span></span>
				<input
					class="w-full font-serif font-normal"
					lang={language}
					value={picture.alts?.[language] ?? ''}
					oninput={(event) => setAlt(language, event.currentTarget.value)}
				/></label
			>
		{/each}
	{/if}
</div>
