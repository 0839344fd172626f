import { flushSync } from 'svelte';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { mountIn } from '$ui/parts/mounting';
import WorkLine from './WorkLine.svelte';
import { lastsInWords, Work, works } from './works.svelte';
import WorksInBar from './WorksInBar.svelte';

/** A long work: what, how far, how long still, stop; and the bar, where its room was left. */
beforeEach(() => vi.useFakeTimers());
afterEach(() => {
	for (const work of works.all) works.drop(work);
	vi.useRealTimers();
});
const textOf = (element: Element) => element.textContent!.replace(/\s+/g, ' ').trim();
const button = (target: Element, name: string) =>
	[...target.querySelectorAll('button')].find((one) => one.getAttribute('aria-label') === name)!;

test('how far and how long still are said once they are known', () => {
	const work = new Work('S', 'Releasing');
	expect([work.far, work.left]).toEqual(['', '']);
	work.progress(3, 0);
	expect(work.far).toBe('3');
	work.progress(0, 1200);
	expect([work.far, work.left]).toEqual(['0 of 1,200', '']);
	vi.advanceTimersByTime(1000);
	work.progress(100, 1200);
	expect(work.left).toBe('');
	vi.advanceTimersByTime(2000);
	work.progress(300, 1200);
	expect([work.far, work.left]).toEqual(['300 of 1,200', 'about 10 seconds still']);
	work.progress(1200, 1200);
	expect(work.left).toBe('');
	// What is told without a number of all is of all as before.
	work.progress(1200, 0, 'the last');
	expect([work.all, work.last]).toEqual([1200, 'the last']);
});

test.each([
	[0, 'a few seconds still'],
	[4400, 'a few seconds still'],
	[5000, 'about 5 seconds still'],
	[42_000, 'about 40 seconds still'],
	[58_000, 'about a minute still'],
	[89_000, 'about a minute still'],
	[150_000, 'about 3 minutes still'],
	[3_600_000, 'about an hour still'],
	[9_000_000, 'about 3 hours still']
])('%d ms are %s', (time, words) => expect(lastsInWords(time)).toBe(words));

test('it is drawn where it was begun; its room left, in the bar; what came of it stands there until it is closed', () => {
	const bar = mountIn(WorksInBar, { site: 'S' });
	const work = works.begin('S', 'Releasing');
	work.progress(1, 4);
	const line = mountIn(WorkLine, { work });
	expect(textOf(line.target)).toBe('Releasing: 1 of 4 Stop');
	expect(line.target.querySelector('[role=progressbar]')!.getAttribute('aria-valuenow')).toBe('1');
	expect(textOf(bar.target)).toBe('');
	line.takeOut();
	flushSync();
	expect(textOf(bar.target)).toBe('Releasing: 1 of 4 Stop');
	button(bar.target, 'Stop: Releasing').click();
	expect(work.signal.aborted).toBe(true);
	// Some say nothing of their own then.
	works.end(work, '', true);
	flushSync();
	expect(textOf(bar.target)).toBe('Stopped. Close');
	expect(bar.target.querySelector('.text-gone')).toBeNull();
	button(bar.target, 'Close: Releasing').click();
	flushSync();
	expect([textOf(bar.target), works.all]).toEqual(['', []]);
	bar.takeOut();
});

test('one of another site is called by it', () => {
	const bar = mountIn(WorksInBar, { site: 'Other' });
	works.begin('S', 'Releasing');
	flushSync();
	expect(textOf(bar.target)).toBe('S: Releasing Stop');
	bar.takeOut();
});

test('one that ends in its room is said there and not in the bar', () => {
	const bar = mountIn(WorksInBar, { site: 'S' });
	const work = works.begin('S', 'Releasing');
	const line = mountIn(WorkLine, { work });
	works.end(work, 'Release 4 is out.');
	flushSync();
	line.takeOut();
	flushSync();
	expect([textOf(bar.target), works.all]).toEqual(['', []]);
	bar.takeOut();
});
