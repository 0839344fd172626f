<script lang="ts">
	import { wording } from '$ui/words/en/pictures';
	import type { Picture } from '$core';
	import type { EditableLayer } from '$ui/parts/words';
	import { benchInView } from '$ui/workspace/context';
	import PictureIntake from './PictureIntake.svelte';

	/** A picture for a layer: dropped, pasted, chosen from a file or from the library; first among the layer's sources. */
	let { layer }: { layer: EditableLayer } = $props();
	const bench = benchInView();

	/** Cut as the rule says that is in force here, else for wide cards. */
	function put(taken: Picture) {
		bench.addPicture(taken);
		const body = bench.bodyAt(layer);
		const sources = body?.kind === 'pictures' ? body.sources : [];
		// One that is there already comes to the front, with its alt text.
		const known = sources.find((source) => source.from === 'file' && source.src === taken.src);
		const others = sources.filter((source) => source !== known);
		bench.propose(layer, {
			...(body?.kind === 'pictures' ? body : { kind: 'pictures', shapes: bench.shapesInForce ?? ['wide'] }),
			sources: [known ?? { from: 'file', src: taken.src }, ...others]
		});
	}
</script>

<PictureIntake site={bench.data.site.name} label={wording.aPictureForAt(bench.tag, layer)} taken={put} offersLibrary />
