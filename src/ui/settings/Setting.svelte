<script lang="ts">
	import { wording } from '$ui/words/en/settings';
	import { onDestroy, type Snippet } from 'svelte';
	import Explain from '$ui/help/Explain.svelte';
	import { firstNamed } from './names';
	import { finderHere, groupHere, orNone } from './finder.svelte';

	/** One setting: its name, the control, and what it means in words. */
	let {
		name,
		hint = '',
		isSet = false,
		children
	}: { name: string; hint?: string; /** It is other than built in. */ isSet?: boolean; children: Snippet } = $props();

	const [finder, group] = [orNone(finderHere), orNone(groupHere)];
	const isFound = $derived(finder?.fits(name, hint) ?? true);
	const known = $derived(firstNamed(name));
	const me = {};
	$effect(() => void group?.settings.set(me, { isSet, isFound }));
	/** All of a group that is looked for as a whole. */
	const isShown = $derived(isFound || (group !== undefined && !group.hasFound && group.isMeant));
	onDestroy(() => group?.settings.delete(me));
</script>

<div class="setting relative mt-2.25 [&[hidden]]:hidden" hidden={!isShown} data-set={isSet || undefined}>
	<label
		class="block has-[>input[type=checkbox]]:grid has-[>input[type=checkbox]]:grid-cols-[20px_1fr] has-[>input[type=checkbox]]:items-center [&>*:not([type=checkbox])]:col-start-2 not-has-[>input[type=checkbox]]:[&>:not(span)]:w-full [&>[type=checkbox]]:justify-self-start [&>[type=checkbox]]:[grid-area:1/1]"
	>
		<span class="name block text-sm font-semibold"
			>{name}{#if isSet && group}<span class="ml-1.5 text-2xs font-normal text-sea" data-testid="set-here"
					>{wording.setHere}</span
				>{/if}</span
		>
		{@render children()}
		{#if hint}<span class="mt-px block text-sm text-ink-soft">{hint}</span>{/if}
	</label>
	{#if known !== undefined}<span class="absolute top-0 right-0"
			><Explain topic={{ of: 'setting', name: known }} called={name} /></span
		>{/if}
</div>
