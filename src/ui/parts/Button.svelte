<script lang="ts">
	import { Button, type ButtonRootProps } from 'bits-ui';
	import { button, type ButtonLook } from './looks';

	/** What does something when it is pressed, or leads somewhere (`href`). As in markup, one in a form sends it. */
	let {
		look = 'plain',
		class: more,
		children,
		...rest
	}: ButtonRootProps & { /** What it is at its place. */ look?: ButtonLook } = $props();
	// What is said of an anchor and of a button differ; together they are more than types can tell.
	const all = $derived({
		...(rest.href === undefined && { type: 'submit' }),
		...rest,
		class: [button({ look }), more],
		'data-button': look
	} as ButtonRootProps);
</script>

<Button.Root {...all}>{@render children?.()}</Button.Root>
