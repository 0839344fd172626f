<script lang="ts">
	import TextInput from '$ui/parts/TextInput.svelte';
	import { DIRECTIVES, readDirectives, withDirective } from './robots';

	/** What robots are told, as choices. A template that is no plain list stays a template. */
	let { text, set, label }: { text: string; set: (text: string) => void; label: string } = $props();

	const said = $derived(readDirectives(text));
	const put = (name: string, value: string | undefined) => set(withDirective(text, name, value));
</script>

<details open={text !== ''}>
	<summary>{text === '' ? 'Say what robots may do' : text}</summary>
	<fieldset>
		<legend class="sr-only">{label}</legend>
		{#each DIRECTIVES as { name, does, choices, asks } (name)}
			<div class="row">
				<label>
					<input
						type="checkbox"
						checked={said.has(name)}
						onchange={(event) => put(name, event.currentTarget.checked ? (choices?.at(-1) ?? '') : undefined)}
					/>
					<span>{does} <span class="mono quiet">{name}</span></span>
				</label>
				{#if said.has(name) && choices}
					<select aria-label={name} value={said.get(name)} onchange={(event) => put(name, event.currentTarget.value)}>
						{#each choices as choice (choice)}<option>{choice}</option>{/each}
					</select>
				{:else if said.has(name) && asks}
					<span class="asks"
						><TextInput
							class="mono"
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
</details>

<style>
	summary {
		cursor: pointer;
		font-size: 12.5px;
	}
	.row {
		padding: 1px 0;
		font-size: 12.5px;
	}
	label {
		display: grid;
		grid-template-columns: 20px 1fr;
		align-items: baseline;
	}
	.row > select,
	.asks {
		display: block;
		margin: 2px 0 2px 20px;
	}
	.asks > :global(input) {
		width: 100%;
	}
</style>
