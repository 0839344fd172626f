import { flushSync, mount, unmount, type Component } from 'svelte';

/** Puts a component into the document, for a test; gives the way to take it out again. */
export function mountIn<P extends Record<string, unknown>>(component: Component<P>, props: P) {
	const target = document.createElement('div');
	document.body.append(target);
	const made = mount(component, { target, props });
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
