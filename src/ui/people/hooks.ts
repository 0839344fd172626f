import type { MessageTold } from '$server/http/contract/people';
import type { HookEvent, HookTold } from '$server/store/hooks/hooks';

/** What an address can ask to be told of. */
export const EVENTS = ['release.made', 'findings.grown', 'drift.found', 'job.ended'] as const satisfies HookEvent[];
export const EVENT_WORDS: Readonly<Record<HookTold, string>> = {
	'release.made': 'releases',
	'findings.grown': 'findings that grow',
	'drift.found': 'pages that are served otherwise',
	'job.ended': 'long work that ends',
	'webhook.tried': 'a try'
};

const moment = (at: string) => new Date(at).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'medium' });

/** What became of a message, in a sentence. */
export function messageInWords({ event, made, due, tries }: MessageTold): string {
	const last = tries.at(-1);
	const came =
		last === undefined
			? 'not sent yet'
			: `${last.status === undefined ? (last.why ?? 'not sent') : `answered ${last.status}`}${tries.length > 1 ? ` after ${tries.length} tries` : ''}`;
	const next = due === undefined || last === undefined ? '' : `; again ${moment(due)}`;
	return `${EVENT_WORDS[event]}, ${moment(made)}: ${came}${next}`;
}
