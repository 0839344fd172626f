import { cardInWords, describeFinding, describeMend, reasonWords, type Finding } from '$core';
import type { ProbeLook } from './look';
import type { FetchedPicture } from './pictures';
import type { Probe } from './probe';

/** What was seen of an address, in the words of the language that is spoken now. */

/** A finding as it is told. */
interface ToldFinding {
	readonly code: string;
	readonly tag?: string;
	readonly weight: number;
	readonly says: string;
	readonly mend: string;
	readonly line?: number;
}

export interface ToldProbe extends Omit<Probe, 'readers' | 'picture' | 'findings'> {
	/** How robots.txt failed, in words that follow it. */
	readonly readers: readonly (Omit<Probe['readers'][number], 'robotsFail'> & { readonly robotsFail?: string })[];
	/** Why it is none, in words that follow its address. */
	readonly picture: (Omit<FetchedPicture, 'why' | 'apart'> & { readonly why?: string }) | undefined;
	readonly findings: readonly ToldFinding[];
}

export interface ToldLook extends Omit<ProbeLook, 'probe' | 'came' | 'went'> {
	readonly probe: ToldProbe;
	readonly came: readonly string[];
	readonly went: readonly string[];
}

const toldFinding = (one: Finding): ToldFinding => ({
	...{ code: one.code, weight: one.weight, says: describeFinding(one), mend: describeMend(one) },
	...(one.tag && { tag: one.tag }),
	...('line' in one.data && typeof one.data.line === 'number' && { line: one.data.line })
});

function toldPicture({ why, apart: _apart, ...picture }: FetchedPicture): ToldProbe['picture'] {
	return { ...picture, ...(why && { why: reasonWords().noPicture(why) }) };
}

export const probeInWords = ({ readers, picture, findings, ...probe }: Probe): ToldProbe => ({
	...probe,
	readers: readers.map(({ robotsFail, card, ...one }) => ({
		...{ ...one, card: card && cardInWords(card) },
		...(robotsFail && { robotsFail: reasonWords().robotsFailed(robotsFail) })
	})),
	picture: picture && toldPicture(picture),
	findings: findings.map(toldFinding)
});

const toldChange = (one: Finding | string) => (typeof one === 'string' ? one : describeFinding(one));

export const lookInWords = ({ probe, came, went, ...look }: ProbeLook): ToldLook => ({
	...look,
	probe: probeInWords(probe),
	came: came.map(toldChange),
	went: went.map(toldChange)
});
