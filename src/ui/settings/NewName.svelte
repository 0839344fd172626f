<script lang="ts">
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
			? `“${wanted}” is no name: it begins with a letter, and holds letters, digits and hyphens.`
			: taken(wanted)
				? `There is one called “${wanted}” already.`
				: '';
		if (wrong) return;
		add(wanted);
		name = '';
	}
</script>

<form class="row" {onsubmit}>
	<input class="mono grow" aria-label={label} {placeholder} bind:value={name} />
	<button class="plain-button" disabled={name.trim() === ''}>Add</button>
</form>
{#if wrong}<p class="wrong" role="alert">{wrong}</p>{/if}

<style>
	.row {
		display: flex;
		gap: 8px;
		align-items: center;
		margin-top: 8px;
	}
	.grow {
		flex: 1;
		min-width: 0;
	}
	.wrong {
		border-left: 3px solid var(--gone);
		margin-top: 4px;
		padding-left: 7px;
	}
</style>
