import { expect, test } from 'vitest';
import { ALL_READERS, cardOf, finding, findTag, type Head } from '$core';
import { answeredIn } from '../speaking';
import type { ProbeLook } from './look';
import { lookInWords, probeInWords } from './told';

const gangway = ALL_READERS.find(({ id }) => id === 'gangway')!;
const address = 'https://s.example/a';
const picture = 'https://s.example/p.avif';
const head: Head = {
	...{ html: { lang: '' }, before: [], after: [] },
	tags: [{ tag: findTag('og:image')!, value: picture, attributes: {} }]
};
const page = { of: 'site' } as const;
const slow = finding('broken', page, undefined, { how: { is: 'ended', end: 'timeout' }, readers: ['Gangway'] });
const gap = finding('scheme-address', page, 'og:image', { tag: 'og:image', line: 7, scheme: 'data' });
/** As a thread hands it on: data, without any words of a language that was asked for. */
const look = JSON.parse(
	JSON.stringify({
		...{ path: '/a', threeWay: [], before: [], cardsBefore: [] },
		...{ came: [slow, 'title: Eider'], went: [gap, 'A sentence of an older version'] },
		probe: {
			...{ address, made: '2026-05-03T00:00:00.000Z', tags: [], head: '', unseen: 0 },
			picture: { address: picture, from: 'og:image', facts: null, why: { is: 'no-picture', but: 'text/html' } },
			findings: [slow, gap],
			readers: [
				{
					...{ reader: 'gangway', isShutOut: true, robotsFail: { is: 'answers', status: 503 } },
					...{ hops: [], bytes: 0, end: 'whole', took: 1, encoding: '', byChance: [], key: address, keeps: 1 },
					card: cardOf(gangway, head, () => ({ type: 'image/avif', width: 1200, height: 630, bytes: 9 }))
				}
			]
		}
	})
) as ProbeLook;

test('a look is told in English where nothing else is asked for', () => {
	const { probe, came, went } = lookInWords(look);
	expect(probe.findings).toEqual([
		{
			...{ code: 'broken', weight: 6, mend: 'Mend the server: readers give up here.' },
			says: 'The answer is broken for Gangway: it does not answer in time'
		},
		{
			...{ code: 'scheme-address', tag: 'og:image', line: 7, weight: 7 },
			...{ says: 'og:image is an address of data:, which no reader fetches (line 7)' },
			mend: 'Name a whole https address in og:image.'
		}
	]);
	expect(probe.picture?.why).toBe('is no picture but text/html');
	expect(probe.readers[0]).toMatchObject({
		robotsFail: 'answers with 503',
		card: { passedOver: [{ because: { is: 'form', form: 'AVIF' }, why: 'is AVIF, which it cannot read' }] }
	});
	expect(came).toEqual(['The answer is broken for Gangway: it does not answer in time', 'title: Eider']);
	expect(went).toEqual([
		'og:image is an address of data:, which no reader fetches (line 7)',
		'A sentence of an older version'
	]);
});

test('and in French where that is: findings, cards, robots.txt, the picture, what came and went', () => {
	const { probe, came, went } = answeredIn('fr', () => lookInWords(look));
	expect(probe.findings.map(({ says }) => says)).toEqual([
		'La réponse est cassée pour Gangway : elle ne répond pas à temps',
		'og:image est une adresse en data:, qu’aucun lecteur ne prend (ligne 7)'
	]);
	expect(probe.picture?.why).toBe('n’est pas une image, mais text/html');
	expect(probe.readers[0]).toMatchObject({
		robotsFail: 'répond 503',
		card: { passedOver: [{ why: 'est en AVIF, qu’il ne sait pas lire' }] }
	});
	expect(came).toEqual(['La réponse est cassée pour Gangway : elle ne répond pas à temps', 'title: Eider']);
	expect(went[1]).toBe('A sentence of an older version');
	// What was told is not what is kept.
	expect(lookInWords(look).probe.picture?.why).toBe('is no picture but text/html');
});

test('what was not there is not told', () => {
	const { robotsFail: _robotsFail, ...reader } = look.probe.readers[0]!;
	const told = probeInWords({ ...look.probe, picture: undefined, readers: [{ ...reader, card: undefined }] });
	expect(told.picture).toBeUndefined();
	expect(told.readers[0]!.card).toBeUndefined();
	expect(told.readers[0]).not.toHaveProperty('robotsFail');
});
