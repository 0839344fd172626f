import * as api from '$ui/api';
import type { Bench } from '$ui/workspace/bench.svelte';

/** What the settings of a layer ask for, beside edits: `do` names it. */
export type Action = Readonly<Record<string, string>>;

const ON_TYPES = ['add', 'rename', 'remove', 'renameField'];
export const isOnType = (action: Action) => ON_TYPES.includes(action.do as string);

/** Does something to a type, and says what came of it. */
export async function actOnType(bench: Bench, action: Action) {
	const { name, set, to, field } = action;
	const told: Record<string, string> = {
		add: set
			? `The set “${set}” is in the type “${name}”. Look at its templates, then release.`
			: `The type “${name}” is added: give it to pages in their settings.`,
		rename: `The type is called “${to}” now.`,
		remove: `The type “${name}” is gone; its pages are of the type “${to}”.`,
		renameField: `The field is called “${to}” now, in templates too that said “${field}”.`
	};
	await bench.drafts.settle();
	const done = await api.actOnType(bench.siteName, action);
	bench.message = api.isRefused(done) ? done.refused : told[action.do as string];
	if (!api.isRefused(done)) await bench.changedElsewhere();
}

/** Does something to the page in view; gives the path to go to and what is to be said there, or says why not. */
export async function actOnPage(
	bench: Bench,
	action: Action
): Promise<{ readonly path: string; readonly says: string | undefined } | undefined> {
	await bench.drafts.settle();
	const done = await api.actOnPage(bench.siteName, action);
	if (api.isRefused(done)) {
		bench.message = done.refused;
		return undefined;
	}
	return { path: done.path, says: action.do === 'copy' ? `The copy stands at ${done.path} as a draft.` : undefined };
}
