<script lang="ts">
	import { benchInView } from '$ui/workspace/context';

	/** What the bench says of what was done, or of an edit that is being taken back. */
	const bench = benchInView();
	const taking = $derived(bench.history.taking);
</script>

{#if taking.isLong}
	<p class="message top" role="status">{taking.says} <button class="link" onclick={taking.stop}>Stop</button></p>
{:else if bench.message}
	<p class="message top" role="status">
		{bench.message} <button class="plain-button" onclick={() => (bench.message = undefined)}>Close</button>
	</p>
{/if}
