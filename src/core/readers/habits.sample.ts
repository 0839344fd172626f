import type { Habits } from './habits';

/** Another value of each habit: one that is stated and not here does not compile. */
export const OTHER_HABITS: { readonly [H in keyof Required<Habits>]: (now: Habits[H]) => Habits[H] } = {
	agent: (now) => `${now} altered`,
	name: (now) => `${now}-altered`,
	accepts: () => 'text/html',
	languages: (now) => (now === '' ? 'fr' : ''),
	redirects: () => 1,
	follows: (now) => now.filter((status) => status !== 302),
	otherHosts: (now) => !now,
	refreshes: (now) => !now,
	cookies: (now) => !now,
	bytes: () => 123_456,
	counts: (now) => (now === 'packed' ? 'unpacked' : 'packed'),
	patience: () => 400,
	unfinished: (now) => (now === 'card' ? 'none' : 'card'),
	readsBody: (now) => !now,
	relative: (now) => (now === 'drops' ? 'resolves' : 'drops'),
	doubled: (now) => (now === 'first' ? 'last' : 'first'),
	obeysRobots: (now) => !now,
	keeps: (now) => (now ? undefined : { under: 'canonical', hours: 5, failed: 2, again: 'ask' })
};
