import { expect, test } from 'vitest';
import { ALL_READERS, cardOf, findTag, reportOf, type Head } from '../index';

const headOf = (tags: readonly (readonly [string, string])[]): Head => ({
	html: { lang: '' },
	tags: tags.map(([tag, value]) => ({ tag: findTag(tag)!, value, attributes: undefined })),
	...{ before: [], after: [] }
});
const NASTY = '"><script>alert(1)</script>&amp;';
const seenOf = (title: string, findings = [{ says: `It says ${NASTY}`, mend: 'Mend it.', weight: 7, line: 3 }]) => ({
	...{ address: `https://s.example/?${NASTY}`, made: '2026-05-03T10:00:00Z', picture: undefined, unseen: 0, findings },
	readers: ALL_READERS.map((reader, at) => ({
		reader: reader.id,
		isShutOut: at === 1,
		hops: [{ address: `https://s.example/?${NASTY}`, status: at === 0 ? 0 : 200 }],
		card:
			at === 1 || at === 2
				? undefined
				: cardOf(
						reader,
						headOf([
							['title', title],
							['og:title', title],
							['og:image', `https://s.example/p.jpg?${NASTY}`]
						]),
						(address) =>
							at === 3
								? { why: { is: 'form', form: NASTY } }
								: { type: 'image/jpeg', width: 1200, height: 630, bytes: address.length }
					)
	}))
});

test('a report names every reader, what it shows and what it cuts, and what is wrong', () => {
	const report = reportOf(seenOf('Eider '.repeat(40)));
	for (const { name } of ALL_READERS) expect(report).toContain(`<h2>${name}, `);
	expect(report).toContain('It is shut out by robots.txt.');
	expect(report).toContain('It shows no card');
	expect(report).toContain('<li class="grave">');
	expect(report).toContain('Line 3.');
	expect(report).toContain('<del>');
	expect(report).toContain('<li>no answer ');
	expect(report).toMatch(/Not the picture of twitter:image|Not the picture of og:image/);
	expect(reportOf(seenOf('Eider', []))).toContain('No fault was found, but not all could be looked at');
});

test('whatever was served, nothing of it is markup of the report, and only pictures over http are fetched', () => {
	const report = reportOf(seenOf(NASTY));
	expect(report).not.toContain('<script');
	expect(report.match(/<img src="[^"]*"/g)!.length).toBeGreaterThan(3);
	const card = cardOf(ALL_READERS[0]!, headOf([['og:image', 'javascript:alert(1)']]));
	const one = { ...seenOf('x').readers[0]!, card };
	expect(reportOf({ ...seenOf('x'), readers: [one] })).not.toContain('<img');
});
