<script lang="ts">
	import { wording } from '$ui/words/en/help';
	import { Popover } from 'bits-ui';
	import { landmarkOf } from '$ui/parts/shown/landmark';
	import { LEAF } from '$ui/parts/looks';
	import { helpOf, type Topic } from './help';

	/** What is said of something, beside it; Escape and a press elsewhere close it, and give the focus back. */
	let { topic, at, close }: { topic: Topic; at: HTMLElement; close: () => void } = $props();
	const help = $derived(helpOf(topic));
</script>

<Popover.Root bind:open={() => true, (open) => !open && close()}>
	<Popover.Portal to={landmarkOf(at)}>
		<Popover.Content
			strategy="fixed"
			class={[LEAF, 'w-90']}
			customAnchor={at}
			sideOffset={4}
			align="start"
			collisionPadding={8}
			data-testid="explained"
			aria-label={help?.name}
			tabindex={0}
			onInteractOutside={(event) => at.contains(event.target as Node) && event.preventDefault()}
			onCloseAutoFocus={(event) => {
				event.preventDefault();
				at.focus();
			}}
		>
			{#if help}
				<p class={['mb-1 font-semibold', topic.of === 'tag' && 'font-mono']}>{help.name}</p>
				{#each help.says as sentence, index (index)}<p class="mb-1">{sentence}</p>{/each}
				<p class="mt-1.5 border-t border-t-rule pt-1 text-ink-soft">
					{wording.suchAs}
					<span class={['wrap-anywhere text-ink', help.isCode ? 'font-mono text-xs' : 'font-serif']}
						>{help.example}</span
					>
				</p>
			{:else}
				<p>{wording.nothingWrittenYet}</p>
			{/if}
		</Popover.Content>
	</Popover.Portal>
</Popover.Root>
