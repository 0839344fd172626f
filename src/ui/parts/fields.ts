type Field = HTMLInputElement | HTMLTextAreaElement;
const nameOf = (field: Field) => field.ariaLabel ?? field.labels?.[0]?.textContent;

/** Leaves the field that one is in, so that it takes what was typed; gives its name, undefined for no field. */
export function leaveField(): string | undefined {
	const field = document.activeElement;
	if (!(field instanceof HTMLInputElement || field instanceof HTMLTextAreaElement)) return undefined;
	const name = nameOf(field);
	field.blur();
	return name ?? undefined;
}

/** Puts the focus into the field of that name, if it stands nowhere. */
export function comeBackTo(name: string | undefined) {
	if (name === undefined || document.activeElement !== document.body) return;
	const all = [...document.querySelectorAll<Field>('input, textarea')];
	all.find((field) => nameOf(field) === name)?.focus();
}
