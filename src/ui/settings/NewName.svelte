<script lang="ts">
	import { wording } from '$ui/words/en/settings';
	import Button from '$ui/parts/Button.svelte';
	import { isOwnName } from './fieldValues';

	/** A name to be given to something that templates call by it: a piece, words. */
	let {
		label,
		placeholder,
		taken,
		add
	}: {
		label: string;
		placeholder: string;
		taken: (name: string) => boolean;
		add: (name: string) => void;
	} = $props();

	let name = $state('');
	let wrong = $state('');
	function onsubmit(event: SubmitEvent) {
		event.preventDefault();
		const wanted = name.trim();
		wrong = !isOwnName(wanted)
			? wording.isNoNameItBeginsWithA(wanted)
			: taken(wanted)
				? wording.thereIsOneCalledAlready(wanted)
				: '';
		if (wrong) return;
		add(wanted);
		name = '';
	}
</script>

<form class="row mt-2 flex items-center gap-2" {onsubmit}>
	<input class="min-w-0 flex-1 font-mono" aria-label={label} {placeholder} bind:value={name} />
	<Button disabled={name.trim() === ''}>{wording.add}</Button>
</form>
{#if wrong}<p class="mt-1 border-l-3 border-l-gone pl-1.75" role="alert">{wrong}</p>{/if}
