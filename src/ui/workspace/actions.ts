import type { PageAction } from '$server/edits/pages';
import type { TypeAction } from '$server/edits/types';
import { call, isRefused } from '$ui/client';
import type { Bench } from '$ui/workspace/bench.svelte';

/** What the settings of a layer ask for, beside edits: something done to a type or a page, or to go on elsewhere. */
export type Action =
	| TypeAction
	| OnPage
	| { readonly do: 'makeVersion'; readonly language: string }
	| { readonly do: 'makePage'; readonly type: string }
	| { readonly do: 'takeAway' }
	| { readonly do: 'tag'; readonly name: string };
type OnPage = Exclude<PageAction, { do: 'add' | 'remove' }>;

/** Does something to a type, and says what came of it. */
export async function actOnType(bench: Bench, action: TypeAction) {
	await bench.drafts.settle();
	const done = await call('POST /sites/{site}/types', { site: bench.siteName, body: action });
	bench.message = isRefused(done) ? done.refused : toldOf(action);
	if (!isRefused(done)) await bench.changedElsewhere();
}

function toldOf(action: TypeAction): string {
	switch (action.do) {
		case 'add':
			return action.set
				? `The set “${action.set}” is in the type “${action.name}”. Look at its templates, then release.`
				: `The type “${action.name}” is added: give it to pages in their settings.`;
		case 'rename':
			return `The type is called “${action.to}” now.`;
		case 'remove':
			return `The type “${action.name}” is gone; its pages are of the type “${action.to ?? ''}”.`;
		case 'renameField':
			return `The field is called “${action.to}” now, in templates too that said “${action.field}”.`;
		case 'renamePiece':
			return `The piece is called “${action.to}” now, in every template that uses it.`;
	}
}

/** Does something to the page in view; gives the path to go to and what is to be said there, or says why not. */
export async function actOnPage(
	bench: Bench,
	action: OnPage
): Promise<{ readonly path: string; readonly says: string | undefined } | undefined> {
	await bench.drafts.settle();
	const done = await call('POST /sites/{site}/pages', { site: bench.siteName, body: action });
	if (isRefused(done)) {
		bench.message = done.refused;
		return undefined;
	}
	return { path: done.path, says: action.do === 'copy' ? `The copy stands at ${done.path} as a draft.` : undefined };
}

/** Pins what the cards of pages say, as one edit; gives what is to be said of it. */
export async function pinned(site: string, paths: readonly string[]): Promise<string> {
	const done = await call('POST /sites/{site}/batch', {
		site,
		body: { pages: { paths }, action: { do: 'pin', on: true } }
	});
	if (isRefused(done)) return done.refused;
	const pages = paths.length === 1 ? 'This page is' : `${paths.length} pages are`;
	return `${pages} pinned: an edit that changes what the cards say tells so first.`;
}
