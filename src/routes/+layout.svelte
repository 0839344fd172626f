<script lang="ts">
	import { onMount } from 'svelte';
	import '$ui/theme.css';
	import Tips from '$ui/parts/shown/Tips.svelte';
	import { speak } from '$ui/words/speaking';
	let { children, data } = $props();
	// svelte-ignore state_referenced_locally
	// Before anything else of a page is drawn; another language comes with another page.
	speak(data.language);
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
