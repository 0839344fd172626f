import { expect, test } from 'vitest';
import { languageFor } from './language';

test.each([
	[undefined, null, 'en-GB'],
	[undefined, 'fr', 'fr'],
	[undefined, 'fr-CH, fr;q=0.9, en;q=0.8', 'fr'],
	[undefined, 'en-US,en;q=0.9,fr;q=0.8', 'en-GB'],
	[undefined, 'de, fr;q=0.3', 'fr'],
	[undefined, 'de', 'en-GB'],
	[undefined, 'fr;q=0, en', 'en-GB'],
	[undefined, '*', 'en-GB'],
	[undefined, ';;,=,q', 'en-GB'],
	['fr', 'en', 'fr'],
	['en-GB', 'fr', 'en-GB'],
	['xx', 'fr', 'fr'],
	['__proto__', 'en', 'en-GB']
])('chosen %j and asked for %j, %s is spoken', (chosen, accepted, language) => {
	expect(languageFor(chosen, accepted)).toBe(language);
});

test('a header of any length is read in no time', () => {
	expect(languageFor(undefined, `${'a,'.repeat(500_000)}fr`)).toBe('en-GB');
});
