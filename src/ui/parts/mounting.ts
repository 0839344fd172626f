import { flushSync, mount, unmount, type Component } from 'svelte';

/** Puts a component into a document for a test; `context` is what rooms hand down. Give back to take it out again. */
export function mountIn<P extends Record<string, unknown>>(
	component: Component<P>,
	props: P,
	context?: Map<unknown, unknown>
) {
	const target = document.createElement('div');
	document.body.append(target);
	const made = mount(component, { target, props, ...(context && { context }) });
	flushSync();
	return { target, takeOut: () => void unmount(made).then(() => target.remove()) };
}

/** Writes into a field as a person does. */
export function write(field: Element | null, text: string) {
	const input = field as HTMLInputElement;
	input.value = text;
	input.dispatchEvent(new Event('input', { bubbles: true }));
	flushSync();
}
