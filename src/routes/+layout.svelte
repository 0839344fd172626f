<script lang="ts">
	import { onMount } from 'svelte';
	import '$ui/theme.css';
	import Tips from '$ui/parts/shown/Tips.svelte';
	let { children, data } = $props();
	// The page's own code has set these by now.
	onMount(() => document.querySelectorAll('[data-style]').forEach((one) => one.removeAttribute('data-style')));
</script>

{@render children()}
<Tips />
{#if data.me.kind === 'person'}
	{#await import('$ui/people/SignInAgain.svelte') then { default: SignInAgain }}
		<SignInAgain name={data.me.name} />
	{/await}
{/if}
