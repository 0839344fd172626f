<script lang="ts">
	import { wording } from '$ui/words/en/settings';
	import type { EditableLayer } from '$ui/parts/words';
	import { benchInView } from '$ui/workspace/context';
	import Setting from './Setting.svelte';
	import { SAME, saysSame, type Same } from './same';

	/** One switch for several tags: sharing says the same as search, the card says the same as sharing. */
	let { layer }: { layer: EditableLayer } = $props();
	const bench = benchInView();

	function set(pairs: Same['pairs'], on: boolean) {
		for (const [tag, from] of pairs) bench.proposeFor(layer, tag, on ? { kind: 'borrow', from } : null);
	}
	const replaced = (pairs: Same['pairs']) =>
		pairs.filter(([tag, from]) => {
			const body = bench.bodyFor(layer, tag);
			return body !== null && !(body.kind === 'borrow' && body.from === from);
		});
</script>

{#each SAME as { name, hint, pairs } (name)}
	{@const lost = replaced(pairs)}
	<Setting
		{name}
		isSet={saysSame(pairs, (tag) => bench.bodyFor(layer, tag))}
		hint={lost.length > 0 && !saysSame(pairs, (tag) => bench.bodyFor(layer, tag))
			? wording.whatIsWrittenHereForWouldGo(hint, lost.map(([tag]) => tag).join(', '))
			: hint}
	>
		<input
			type="checkbox"
			checked={saysSame(pairs, (tag) => bench.bodyFor(layer, tag))}
			onchange={(event) => set(pairs, event.currentTarget.checked)}
		/>
	</Setting>
{/each}
