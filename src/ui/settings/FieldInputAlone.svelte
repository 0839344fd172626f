<script lang="ts">
	import type { Field, FieldValue } from '$core';
	import { Bench } from '$ui/workspace/bench.svelte';
	import { setBench } from '$ui/workspace/context';
	import FieldInput from './FieldInput.svelte';
	import { untrack } from 'svelte';

	/** The field by itself, at a page that has nothing else; for tests. */
	let {
		field,
		value,
		timeZone,
		set
	}: {
		field: Field;
		value: FieldValue | undefined;
		timeZone: string | undefined;
		set: (value: FieldValue | undefined) => void;
	} = $props();
	const site = untrack(() => ({
		...{ name: 'Marl', base: 'https://marl.example/', languages: ['en'], separator: '·', fields: {}, rules: [] },
		...(timeZone && { timeZone })
	}));
	setBench(
		new Bench('Marl', {
			site,
			types: [{ name: 'isle', fields: [], rules: [] }],
			page: { path: '/', type: 'isle', state: 'live', fields: {}, rules: [] },
			...{ pictures: [], released: null, versions: [], count: { all: 1, live: 1, byType: { isle: 1 } } }
		})
	);
</script>

<FieldInput {field} {value} {set} />
