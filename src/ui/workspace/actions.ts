import { wording } from '$ui/words/en/workspace';
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
				? wording.theSetIsInTheTypeLook(action.set, action.name)
				: wording.theTypeIsAddedGiveItTo(action.name);
		case 'rename':
			return wording.theTypeIsCalledNow(action.to);
		case 'remove':
			return wording.theTypeIsGoneItsPagesAre(action.name, action.to ?? '');
		case 'renameField':
			return wording.theFieldIsCalledNowIn(action.to, action.field);
		case 'renamePiece':
			return wording.thePieceIsCalledNowInEvery(action.to);
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
	return { path: done.path, says: action.do === 'copy' ? wording.theCopyStandsAtAsADraft(done.path) : undefined };
}

/** Pins what the cards of pages say, as one edit; gives what is to be said of it. */
export async function pinned(site: string, paths: readonly string[]): Promise<string> {
	const done = await call('POST /sites/{site}/batch', {
		site,
		body: { pages: { paths }, action: { do: 'pin', on: true } }
	});
	if (isRefused(done)) return done.refused;
	const pages = paths.length === 1 ? wording.thisPageIs : wording.pagesAre(paths.length);
	return wording.pinnedAnEditThatChangesWhat(pages);
}
