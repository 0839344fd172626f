import { expect, test } from 'vitest';
import { finding, isSure, type Finding } from '$core';
import { causesOf } from './causes';
import { sarifOf, type SarifFinding } from './sarif';

/** What many pages have from one cause, and how it is told to programs. */

const onPage = (path: string, value: string, code: 'relative-address' | 'local-served' = 'relative-address') => ({
	file: path.slice(1),
	finding: finding(code, { of: 'page', path }, 'og:image', { tag: 'og:image', line: 3, value })
});

test('pages that say the same of the same tag have one cause; others have their own', () => {
	const found = [
		onPage('/a', 'x.png'),
		onPage('/b', 'y.png'),
		onPage('/b', 'http://localhost/', 'local-served'),
		onPage('/c', 'z.png')
	];
	expect(causesOf(found).map(({ first, all }) => [first.file, all.map(({ file }) => file)])).toEqual([
		['a', ['a', 'b', 'c']],
		['b', ['b']]
	]);
	expect(causesOf([])).toEqual([]);
});

test('what is said of the site or a type stands by itself', () => {
	const whole: Finding = finding('no-title', { of: 'site' }, 'title', {});
	expect(causesOf([{ finding: whole }, { finding: whole }])).toHaveLength(2);
});

test('what is likely is told from what is so', () => {
	expect([isSure({ code: 'placeholder' }), isSure({ code: 'no-title' }), isSure({ code: 'value-broken' })]).toEqual([
		...[false, true, true]
	]);
});

const one: SarifFinding = {
	...{ code: 'file-missing', says: 'icon names what is not there', mend: 'Put it there', weight: 6, isSure: false },
	...{ place: 'a/ä b#1.html', line: 3, column: 5 },
	others: [
		{ place: 'c:d/50%25.html', line: 4, says: 'There too' },
		{ place: 'https://s.example/x?y', says: 'And there' }
	]
};
test('SARIF names all places, each by an address that is one', () => {
	const [run] = sarifOf([one, { ...one, others: [] }], '1.0').runs;
	const [first, second] = run!.results;
	expect(first!.locations).toEqual([
		{
			physicalLocation: {
				artifactLocation: { uri: 'a/%C3%A4%20b%231.html' },
				region: { startLine: 3, startColumn: 5 }
			}
		}
	]);
	expect(first!.relatedLocations).toEqual([
		{
			...{ id: 0, message: { text: 'There too' } },
			physicalLocation: { artifactLocation: { uri: 'c%3Ad/50%25.html' }, region: { startLine: 4 } }
		},
		{
			...{ id: 1, message: { text: 'And there' } },
			physicalLocation: { artifactLocation: { uri: 'https://s.example/x?y' } }
		}
	]);
	expect(second).not.toHaveProperty('relatedLocations');
	expect(run!.tool.driver.rules).toEqual([
		{
			...{ id: 'file-missing', shortDescription: { text: 'file missing' }, help: { text: 'Put it there' } },
			...{ defaultConfiguration: { level: 'error' }, properties: { precision: 'medium', weight: 6 } }
		}
	]);
	for (const { artifactLocation } of [first!, second!].flatMap(({ locations, relatedLocations = [] }) =>
		[...locations, ...relatedLocations].map((at) => at.physicalLocation)
	))
		expect(() => new URL(artifactLocation.uri, 'https://base.invalid/')).not.toThrow();
});
