import { expect, test } from 'vitest';
import { agentInWords, areaInWords, lineInWords, listIn } from './words';

test('areas and lists as they are said and typed', () => {
	expect(areaInWords({})).toBe('');
	expect(areaInWords({ paths: ['/a', '/b*'], languages: ['fr'] })).toBe(', only paths /a, /b*; languages fr');
	expect(listIn(' /a,  /b*\n/c ')).toEqual(['/a', '/b*', '/c']);
	expect(listIn(' , ')).toEqual([]);
});

test.each([
	[
		'Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/156.0 Safari/537.36',
		'Chromium on Linux'
	],
	['Mozilla/5.0 (Macintosh; Intel Mac OS X 14_0) AppleWebKit/605.1 Version/17 Safari/605.1', 'Safari on macOS'],
	['Mozilla/5.0 (Windows NT 10.0; rv:130.0) Gecko/20100101 Firefox/130.0', 'Firefox on Windows'],
	['curl/8', 'curl/8'],
	['', 'An unnamed browser']
])('%s', (agent, words) => {
	expect(agentInWords(agent)).toBe(words);
});

test.each([
	[{ who: 'Ada', what: 'signed-in', site: undefined, data: { address: '10.0.0.1' } }, 'Ada signed in from 10.0.0.1'],
	[
		{ who: 'Ada', what: 'role-set', site: 'S', data: { name: 'Ben', role: 'editor', area: { paths: ['/a*'] } } },
		'Ada gave a role: Ben, editor, only paths /a* at S'
	],
	[
		{ who: 'Ada', what: 'role-set', site: 'S', data: { name: 'Ben', role: null, area: {} } },
		'Ada gave a role: Ben, nothing any more at S'
	],
	[
		{ who: 'Ada', what: 'owner-set', site: undefined, data: { name: 'Ben', isOwner: false } },
		'Ada said who owns every site: Ben, not any more'
	],
	[
		{ who: 'key build', what: 'released', site: 'S', data: { number: 3, pages: 12 } },
		'key build made a release: number 3, pages 12 at S'
	],
	[{ who: 'nobody', what: 'something-new', site: undefined, data: {} }, 'nobody something-new']
])('%j in words', (line, words) => {
	expect(lineInWords(line)).toBe(words);
});
