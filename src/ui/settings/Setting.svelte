<script lang="ts">
	import type { Snippet } from 'svelte';
	/** One setting: its name, the control, and what it means in words. */
	let { name, hint = '', children }: { name: string; hint?: string; children: Snippet } = $props();
</script>

<label class="setting">
	<span class="name">{name}</span>
	{@render children()}
	{#if hint}<span class="hint">{hint}</span>{/if}
</label>

<style>
	.setting {
		display: block;
		margin-top: 9px;
	}
	.name {
		display: block;
		font-size: 13px;
		font-weight: 600;
	}
	.hint {
		display: block;
		margin-top: 1px;
		font-size: 12.5px;
		color: var(--ink-soft);
	}
	.setting > :global(input:not([type='checkbox'])),
	.setting > :global(textarea),
	.setting > :global(select) {
		width: 100%;
	}
	/* A box to tick stands before its name. */
	.setting:has(> :global(input[type='checkbox'])) {
		display: grid;
		grid-template-columns: 20px 1fr;
		align-items: center;
	}
	.setting > :global(input[type='checkbox']) {
		grid-area: 1 / 1;
		justify-self: start;
	}
	.setting:has(> :global(input[type='checkbox'])) > .name,
	.setting:has(> :global(input[type='checkbox'])) > .hint {
		grid-column: 2;
	}
</style>
