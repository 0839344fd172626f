import { wording } from '$ui/words/en/people';
import { momentInWords } from '$ui/words/speaking';
import type { MessageTold } from '$server/http/contract/people';
import type { HookEvent, HookTold } from '$server/store/hooks/hooks';

/** What an address can ask to be told of. */
export const EVENTS = ['release.made', 'findings.grown', 'drift.found', 'job.ended'] as const satisfies HookEvent[];
export const EVENT_WORDS: Readonly<Record<HookTold, string>> = {
	get 'release.made'() {
		return wording.releases;
	},
	get 'findings.grown'() {
		return wording.findingsThatGrow;
	},
	get 'drift.found'() {
		return wording.pagesThatAreServedOtherwise;
	},
	get 'job.ended'() {
		return wording.longWorkThatEnds;
	},
	get 'webhook.tried'() {
		return wording.aTry;
	}
};

const moment = (at: string) => momentInWords(at, 'medium');

/** What became of a message, in a sentence. */
export function messageInWords({ event, made, due, tries }: MessageTold): string {
	const last = tries.at(-1);
	const came =
		last === undefined
			? wording.notSentYet
			: `${last.status === undefined ? (last.why ?? wording.notSent) : wording.answered(last.status)}${tries.length > 1 ? wording.afterTries(tries.length) : ''}`;
	const next = due === undefined || last === undefined ? '' : wording.againAt(moment(due));
	return `${EVENT_WORDS[event]}, ${moment(made)}: ${came}${next}`;
}
