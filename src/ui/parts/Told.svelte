<script lang="ts">
	import type { Snippet } from 'svelte';
	/** What came of what was done, under the bar of a room. */
	let { children }: { children: Snippet } = $props();
</script>

<p class="border-b border-b-rule bg-sea-wash px-4 py-1.5" role="status" data-testid="told">{@render children()}</p>
