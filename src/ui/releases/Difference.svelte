<script lang="ts">
	/** What differs on one page: the lines of its markup that went, and those that came. */
	let { gone, come }: { gone: readonly string[]; come: readonly string[] } = $props();
</script>

<div class="lines mono">
	{#each gone as line, at (at)}<p class="gone">
			<span aria-hidden="true">−</span><span class="sr-only">was: </span>{line}
		</p>{/each}
	{#each come as line, at (at)}<p class="come">
			<span aria-hidden="true">+</span><span class="sr-only">is: </span>{line}
		</p>{/each}
	{#if gone.length === 0 && come.length === 0}<p class="quiet">The same tags in another order.</p>{/if}
</div>

<style>
	.lines {
		font-size: 12px;
		overflow-wrap: anywhere;
	}
	p {
		padding-left: 16px;
		text-indent: -14px;
	}
	.gone {
		color: var(--gone);
	}
	.come {
		color: var(--sea);
	}
	p > span:first-child {
		display: inline-block;
		width: 14px;
		text-indent: 0;
	}
</style>
