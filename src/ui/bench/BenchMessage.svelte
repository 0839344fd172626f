<script lang="ts">
	import { wording } from '$ui/words/en/bench';
	import Button from '$ui/parts/Button.svelte';
	import Told from '$ui/parts/Told.svelte';
	import { benchInView } from '$ui/workspace/context';

	/** What the bench says of what was done, or of an edit that is being taken back. */
	const bench = benchInView();
	const taking = $derived(bench.history.taking);
</script>

{#if taking.isLong}
	<Told>{taking.says} <Button look="link" onclick={taking.stop}>{wording.stop}</Button></Told>
{:else if bench.undone && !bench.undoneAt}
	<Told>
		{#await import('./UndoneLine.svelte') then { default: UndoneLine }}<UndoneLine undone={bench.undone} />{/await}
		<Button onclick={() => (bench.undone = undefined)}>{wording.close}</Button>
	</Told>
{:else if bench.message}
	<Told>
		{bench.message}
		<Button onclick={() => (bench.message = undefined)}>{wording.close}</Button>
	</Told>
{/if}
