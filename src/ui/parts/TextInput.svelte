<script lang="ts">
	/**
	 * A text that is taken with every keystroke, or late. What is typed stands as it was typed while one is at it, also where what
	 * is kept of it reads otherwise.
	 */
	let {
		value,
		set,
		lines = 1,
		late = false,
		...rest
	}: {
		value: string;
		set: (text: string) => void;
		/** More than one for a field of several lines. */
		lines?: number;
		/** Taken when one is done with it: half of it would be something else. */
		late?: boolean;
		class?: string;
		id?: string;
		placeholder?: string;
		maxlength?: number;
		type?: 'text' | 'number' | 'date' | 'time' | 'url';
		step?: string;
		list?: string;
		disabled?: boolean;
		'aria-label'?: string;
		'aria-invalid'?: boolean;
		'aria-describedby'?: string;
	} = $props();

	let typed = $state<string | undefined>();
	function oninput(event: Event & { currentTarget: HTMLInputElement | HTMLTextAreaElement }) {
		typed = event.currentTarget.value;
		if (!late) set(typed);
	}
	function onchange() {
		if (late && typed !== undefined) set(typed);
	}
	const onblur = () => (typed = undefined);
</script>

{#if lines > 1}
	<textarea rows={lines} {...rest} value={typed ?? value} {oninput} {onchange} {onblur}></textarea>
{:else}
	<input {...rest} value={typed ?? value} {oninput} {onchange} {onblur} />
{/if}
