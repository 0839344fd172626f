<script lang="ts">
	import type { Snippet } from 'svelte';
	/** What was not taken, and why, at its place. */
	let { children }: { children: Snippet } = $props();
</script>

<p class="mt-1 border-l-3 border-l-gone pl-1.75 text-sm" role="alert" data-testid="refused">{@render children()}</p>
