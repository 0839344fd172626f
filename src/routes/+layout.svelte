<script lang="ts">
	import './layout.css';
	let { children, data } = $props();
</script>

{@render children()}
{#if data.me.kind === 'person'}
	{#await import('$ui/people/SignInAgain.svelte') then { default: SignInAgain }}
		<SignInAgain name={data.me.name} />
	{/await}
{/if}
