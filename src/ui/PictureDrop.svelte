<script lang="ts">
	import type { Picture, RuleBody } from '$core';
	import * as api from './api';
	import type { Bench, EditableLayer } from './bench.svelte';

	/** A place to drop, paste or choose a picture: it goes into the library and first into the layer's sources. */
	let { bench, layer }: { bench: Bench; layer: EditableLayer } = $props();

	let busy = $state(false);
	let refused = $state('');
	let isOver = $state(false);

	async function take(work: () => Promise<api.Answer<Picture>>) {
		busy = true;
		refused = '';
		const taken = await work();
		busy = false;
		if (api.isRefused(taken)) return void (refused = taken.refused);
		bench.addPicture(taken);
		const body = bench.bodyAt(layer);
		const sources = body?.kind === 'pictures' ? body.sources : [];
		// One that is there already comes to the front, with its alt text.
		const known = sources.find((source) => source.from === 'file' && source.src === taken.src);
		const others = sources.filter((source) => source !== known);
		const next: RuleBody = {
			...(body?.kind === 'pictures' ? body : { kind: 'pictures' }),
			sources: [known ?? { from: 'file', src: taken.src }, ...others]
		};
		bench.propose(layer, next);
	}
	const takeFile = (file: File | undefined) =>
		file ? take(() => api.addPicture(bench.data.site.name, file)) : Promise.resolve();

	/** Files and addresses that are dropped or pasted. */
	const zone = (element: HTMLElement) => {
		const over = (event: DragEvent) => {
			event.preventDefault();
			isOver = true;
		};
		const leave = () => (isOver = false);
		const drop = (event: DragEvent) => {
			event.preventDefault();
			isOver = false;
			takeFrom(event.dataTransfer);
		};
		const paste = (event: ClipboardEvent) => {
			if (takeFrom(event.clipboardData)) event.preventDefault();
		};
		const heard = [
			['dragover', over],
			['dragleave', leave],
			['drop', drop],
			['paste', paste]
		] as const;
		for (const [name, listen] of heard) element.addEventListener(name, listen as EventListener);
		return () => {
			for (const [name, listen] of heard) element.removeEventListener(name, listen as EventListener);
		};
	};
	function takeFrom(data: DataTransfer | null): boolean {
		const file = data?.files[0];
		const address = data?.getData('text').trim() ?? '';
		if (file) void takeFile(file);
		else if (/^https?:\/\//i.test(address)) void take(() => api.addPictureAt(bench.data.site.name, address));
		else return false;
		return true;
	}
</script>

<div class="zone" class:over={isOver} {@attach zone}>
	<label>
		<input
			class="sr-only"
			type="file"
			accept="image/*"
			aria-label="A picture for {bench.tag} at {layer}"
			onchange={(event) => takeFile(event.currentTarget.files?.[0])}
		/>
		<span>{busy ? 'Taking it in …' : 'Choose a picture'}</span>
	</label>
	<input class="paste" aria-label="Paste a picture or its address, for {layer}" placeholder="drop or paste one here" />
</div>
{#if refused}<p class="refused" role="alert">{refused}</p>{/if}

<style>
	.zone {
		display: flex;
		gap: 8px;
		align-items: center;
		margin-top: 6px;
		border: 1px dashed var(--rule-strong);
		border-radius: 4px;
		padding: 5px 8px;
		font-size: 13px;
	}
	.over {
		border-color: var(--sea);
		background: var(--sea-wash);
	}
	label {
		flex: none;
		cursor: pointer;
		text-decoration: underline;
		text-underline-offset: 2px;
	}
	label:focus-within {
		outline: 2px solid var(--focus);
		outline-offset: 1px;
	}
	.paste {
		flex: 1;
		min-width: 0;
		border-color: transparent !important;
		background: transparent !important;
	}
	.refused {
		margin-top: 4px;
		border-left: 3px solid var(--gone);
		padding-left: 7px;
		font-size: 13px;
	}
</style>
