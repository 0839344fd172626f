<script lang="ts">
	import { benchInView } from '$ui/workspace/context';
	import { whyNotLink } from './fieldValues';

	/** The prefixes of custom tags: each stands for a namespace, and its tags can be written in every layer then. */
	const bench = benchInView();

	const prefixes = $derived(Object.entries(bench.working.site.prefixes ?? {}));
	let [name, space] = $state(['', '']);
	let wrong = $state('');

	function set(all: Readonly<Record<string, string>>) {
		bench.change('site', { prefixes: Object.keys(all).length > 0 ? all : null });
	}
	function add(event: SubmitEvent) {
		event.preventDefault();
		const prefix = name.trim().replace(/:$/, '');
		wrong = !/^[a-z][\w-]{0,30}$/i.test(prefix)
			? `“${name}” is no prefix: it takes letters, digits and hyphens.`
			: !/^https?:/.test(space.trim())
				? 'Say which vocabulary it stands for, by its address with https://.'
				: (whyNotLink(space.trim()) ?? '');
		if (wrong) return;
		set({ ...bench.working.site.prefixes, [prefix]: space.trim() });
		[name, space] = ['', ''];
	}
</script>

<details>
	<summary>Custom tags</summary>
	<p class="quiet">A prefix opens tags of a vocabulary of your own, such as <span class="mono">place:height</span>.</p>
	<ul>
		{#each prefixes as [prefix, address] (prefix)}
			<li class="row">
				<span class="mono">{prefix}:</span> <span class="mono quiet grow">{address}</span>
				<button
					class="plain-button"
					aria-label="Remove the prefix {prefix}"
					onclick={() => set(Object.fromEntries(prefixes.filter(([other]) => other !== prefix)))}>×</button
				>
			</li>
		{/each}
	</ul>
	<form class="row" onsubmit={add}>
		<input class="mono short" aria-label="Prefix" placeholder="place" bind:value={name} />
		<input class="mono grow" aria-label="Its vocabulary’s address" placeholder="https://…" bind:value={space} />
		<button class="plain-button" disabled={name.trim() === ''}>Add</button>
	</form>
	{#if wrong}<p class="wrong" role="alert">{wrong}</p>{/if}
</details>

<style>
	details {
		margin-top: 12px;
		font-size: 13px;
	}
	summary {
		cursor: pointer;
		font-weight: 600;
	}
	.row {
		display: flex;
		gap: 8px;
		align-items: center;
		margin-top: 5px;
	}
	.grow {
		flex: 1;
		min-width: 0;
		overflow: hidden;
		text-overflow: ellipsis;
	}
	.short {
		width: 84px;
	}
	.wrong {
		border-left: 3px solid var(--gone);
		margin-top: 4px;
		padding-left: 7px;
	}
</style>
