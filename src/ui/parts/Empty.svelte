<script lang="ts">
	import type { Snippet } from 'svelte';
	/** Where nothing stands yet: what will stand here, and how it gets there. */
	let { says, children }: { says: string; children?: Snippet } = $props();
</script>

<div class="my-2 max-w-120 border-l-3 border-dashed border-l-rule-strong py-1 pl-3" data-testid="empty">
	<p class="font-serif text-md">{says}</p>
	{#if children}<p class="mt-0.75 text-sm text-ink-soft">{@render children()}</p>{/if}
</div>
