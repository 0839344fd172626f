<script lang="ts">
	import { wording } from '$ui/words/en/releases';
	/** What differs on one page: the lines of its markup that went, and those that came. */
	let { gone, come }: { gone: readonly string[]; come: readonly string[] } = $props();
</script>

<div class="lines font-mono text-xs wrap-anywhere">
	{#each gone as line, at (at)}<p class="pl-4 -indent-3.5 text-gone">
			<span class="first:inline-block first:w-3.5 first:indent-0" aria-hidden="true">−</span><span
				class="sr-only first:inline-block first:w-3.5 first:indent-0"
				>{wording.was}
			</span>{line}
		</p>{/each}
	{#each come as line, at (at)}<p class="come pl-4 -indent-3.5 text-sea">
			<span class="first:inline-block first:w-3.5 first:indent-0" aria-hidden="true">+</span><span
				class="sr-only first:inline-block first:w-3.5 first:indent-0"
				>{wording.isOne}
			</span>{line}
		</p>{/each}
	{#if gone.length === 0 && come.length === 0}<p class="pl-4 -indent-3.5 text-ink-soft">
			{wording.theSameTagsInAnotherOrder}
		</p>{/if}
</div>
