import { expect, test } from 'vitest';
import { answeredIn } from '../speaking';
import { launchWords } from './launchWords';

/** Each of the list in words, with counts of one, some and all. */
const all = () =>
	Object.values(launchWords()).flatMap((one) => {
		if (typeof one === 'string') return [one];
		const say = one as (...said: unknown[]) => string;
		return [say(1, 1), say(1, 9), say(3, 9), say(9, 9), say(1200, 1500)];
	});

test('the list is said in English, and in French to who asks so', () => {
	const [english, french] = [all(), answeredIn('fr', all)];
	expect(french).toHaveLength(english.length);
	expect(french.filter((one, at) => one === english[at])).toEqual([]);
	expect([...english, ...french].filter((one) => /undefined|NaN/.test(one))).toEqual([]);
	expect(english).toMatchSnapshot();
	expect(french).toMatchSnapshot();
});
