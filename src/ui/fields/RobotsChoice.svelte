<script lang="ts">
	import { wording } from '$ui/words/en/fields';
	import Disclosure from '$ui/parts/shown/Disclosure.svelte';
	import Select from '$ui/parts/select/Select.svelte';
	import TextInput from '$ui/parts/TextInput.svelte';
	import { DIRECTIVES, readDirectives, withDirective } from './robots';

	/** What robots are told, as choices. A template that is no plain list stays a template. */
	let { text, set, label }: { text: string; set: (text: string) => void; label: string } = $props();

	const said = $derived(readDirectives(text));
	const put = (name: string, value: string | undefined) => set(withDirective(text, name, value));
</script>

<Disclosure class="text-sm" open={text !== ''} label={text === '' ? wording.sayWhatRobotsMayDo : text}>
	<fieldset>
		<legend class="sr-only">{label}</legend>
		{#each DIRECTIVES as { name, does, choices, asks } (name)}
			<div class="row px-0 py-px text-sm">
				<label class="grid grid-cols-[20px_1fr] items-baseline">
					<input
						type="checkbox"
						checked={said.has(name)}
						onchange={(event) => put(name, event.currentTarget.checked ? (choices?.at(-1) ?? '') : undefined)}
					/>
					<span>{does} <span class="font-mono text-ink-soft">{name}</span></span>
				</label>
				{#if said.has(name) && choices}
					<Select
						class="my-0.5 mr-0 ml-5"
						aria-label={name}
						value={said.get(name) ?? ''}
						{choices}
						set={(choice) => put(name, choice)}
					/>
				{:else if said.has(name) && asks}
					<span class="asks my-0.5 mr-0 ml-5 block [&>input]:w-full"
						><TextInput
							class="font-mono"
							aria-label="{name}: {asks}"
							placeholder={asks}
							value={said.get(name) ?? ''}
							set={(value) => put(name, value.trim())}
						/></span
					>
				{/if}
			</div>
		{/each}
	</fieldset>
</Disclosure>
