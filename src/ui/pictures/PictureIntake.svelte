<script lang="ts">
	import { wording } from '$ui/words/en/pictures';
	import Button from '$ui/parts/Button.svelte';
	import Refused from '$ui/parts/Refused.svelte';
	import type { Picture } from '$core';
	import { call, isRefused, type Answer } from '$ui/client';
	import { sentInWords } from '$ui/parts/words';
	import PicturePicker from './PicturePicker.svelte';

	/** A place to drop, paste or choose pictures: each goes into the library; what is refused is said. */
	let {
		site,
		label,
		taken,
		offersLibrary = false
	}: {
		site: string;
		label: string;
		/** Told of each picture that came in. */
		taken: (picture: Picture) => void;
		/** One that is in the library already can be chosen here too. */
		offersLibrary?: boolean;
	} = $props();

	let busy = $state(false);
	let refused = $state<readonly string[]>([]);
	let sent = $state.raw<readonly string[]>([]);
	let isOver = $state(false);
	let picking = $state(false);
	function pick(picture: Picture) {
		picking = false;
		taken(picture);
	}

	async function takeAll(works: readonly (readonly [name: string, work: () => Promise<Answer<Picture>>])[]) {
		busy = true;
		[refused, sent] = [[], []];
		for (const [name, work] of works) {
			const answer = await work();
			if (isRefused(answer)) refused = [...refused, works.length > 1 ? `${name}: ${answer.refused}` : answer.refused];
			else {
				const told = sentInWords(answer);
				if (told) sent = [...sent, works.length > 1 ? `${name}: ${told}` : told];
				taken(answer);
			}
		}
		busy = false;
	}
	/** The bytes of a file as they are: what it is, the server finds out. */
	const add = (file: File) =>
		call('POST /sites/{site}/pictures', {
			...{ site, bytes: file, headers: { 'x-file-name': encodeURIComponent(file.name) } }
		});
	const takeFiles = (files: Iterable<File>) => takeAll([...files].map((file) => [file.name, () => add(file)] as const));

	function takeFrom(data: DataTransfer | null): boolean {
		const address = data?.getData('text').trim() ?? '';
		if (data && data.files.length > 0) void takeFiles([...data.files]);
		else if (/^https?:\/\//i.test(address))
			void takeAll([[address, () => call('POST /sites/{site}/pictures/fetched', { site, body: { address } })]]);
		else return false;
		return true;
	}
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
</script>

<div
	class="zone mt-1.5 flex flex-wrap items-center gap-2 rounded-sm border border-dashed border-rule-strong px-2 py-1.25 text-sm [&.over]:border-sea [&.over]:bg-sea-wash"
	class:over={isOver}
	{@attach zone}
>
	<label
		class="relative flex-none cursor-pointer underline underline-offset-2 focus-within:outline-2 focus-within:outline-offset-1 focus-within:outline-focus"
	>
		<input
			class="sr-only"
			type="file"
			accept="image/*"
			multiple
			aria-label={label}
			onchange={(event) => takeFiles(event.currentTarget.files ?? [])}
		/>
		<span>{busy ? wording.takingItIn : wording.chooseAFile}</span>
	</label>
	{#if offersLibrary}
		<Button look="link" class="flex-none" aria-expanded={picking} onclick={() => (picking = !picking)}
			>{wording.orFromTheLibrary}</Button
		>
	{/if}
	<input
		class="min-w-15 flex-1 border-[transparent_!important] bg-transparent!"
		aria-label={wording.pasteAPictureOrItsAddress(label)}
		placeholder={offersLibrary ? wording.dropPaste : wording.dropOrPasteOneHere}
	/>
</div>
{#if picking}<PicturePicker {site} {pick} />{/if}
{#each sent as told, at (at)}<p class="mt-1 text-sm text-ink-soft" role="status" data-testid="as-sent">{told}</p>{/each}
{#each refused as why, at (at)}<Refused>{why}</Refused>{/each}
