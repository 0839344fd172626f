<script lang="ts">
	import { wording } from '$ui/words/en/bench';
	import Button from '$ui/parts/Button.svelte';
	import { editInWords } from '$ui/record/record';
	import { benchInView } from '$ui/workspace/context';
	import type { Undone } from '$ui/workspace/history';

	/** What was taken back or done again, where it stands, and the way to do the other. */
	let { undone }: { undone: Undone } = $props();
	const bench = benchInView();
	const isBack = $derived(!undone.isAgain);
	const told = $derived(
		editInWords(undone as Parameters<typeof editInWords>[0]).replace(/^(?:Taken back|Done again): /, '')
	);
</script>

<span class="text-sm" role="status" data-testid="undone">
	{isBack ? wording.takenBack : wording.doneAgain}: {told}.
	<Button look="link" onclick={() => (isBack ? bench.history.redo() : bench.history.undo())}
		>{isBack ? wording.doItAgain : wording.takeItBack}</Button
	>
</span>
