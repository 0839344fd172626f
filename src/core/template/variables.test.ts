import { describe, expect, test } from 'vitest';
import { asksForField, renameSeparator, variablesOf } from '../index';
import { renameFieldInTemplate } from './variables';

describe('the variables of a template', () => {
	test.each([
		['plain', []],
		['{page.title} {separator} {site.name}', ['page.title', 'site.name']],
		['{page.a ?? page.b ?? "c" | clip 5}', ['page.a', 'page.b']],
		['[[ in {page.region}[[, {page.town}]]]]', ['page.region', 'page.town']],
		['{page.', []],
		['{page.a} {', []]
	])('%s', (source, names) => {
		expect(variablesOf(source).map(({ name }) => name)).toEqual(names);
	});
	test.each([
		['{page.a}', true],
		['{page.a.src}', true],
		['x [[{page.b ?? page.a}]]', true],
		['{page.ab}', false],
		['{site.a}', false],
		['{page.b.a}', false],
		['{page.a', false]
	])('%s asks for the field a: %s', (source, wanted) => {
		expect(asksForField(source, 'a')).toBe(wanted);
	});
});

describe('a field under another name', () => {
	test.each([
		['{page.a}', '{page.z}', '{page.z ?? page.a}'],
		['{page.a.src} and {page.a}', '{page.z.src} and {page.z}', '{page.z.src ?? page.a.src} and {page.z ?? page.a}'],
		['{ page.a | clip 5 }', '{ page.z | clip 5 }', '{ page.z ?? page.a | clip 5 }'],
		['{page.b ?? page.a}\\{page.a}', '{page.b ?? page.z}\\{page.a}', '{page.b ?? page.z ?? page.a}\\{page.a}'],
		['{site.a}{page.ab}"page.a"', '{site.a}{page.ab}"page.a"', '{site.a}{page.ab}"page.a"'],
		['{page.a', '{page.a', '{page.a']
	])('%s', (source, renamed, both) => {
		expect(renameFieldInTemplate(source, 'a', 'z')).toBe(renamed);
		expect(renameFieldInTemplate(source, 'a', 'z', true)).toBe(both);
	});
});

describe('the separator of earlier templates', () => {
	test.each([
		['{sep}', '{separator}'],
		['a { sep } b', 'a { separator } b'],
		['{page.title}{sep}{site.name}', '{page.title}{separator}{site.name}'],
		['\\{sep}', '\\{sep}'],
		['\\\\{sep}', '\\\\{separator}'],
		['{sepal}', '{sepal}'],
		['{page.sep}', '{page.sep}'],
		['{"{sep}"}', '{"{sep}"}'],
		['{"\\"" }{sep}', '{"\\"" }{separator}'],
		['{page.a ?? "}" }{sep}', '{page.a ?? "}" }{separator}'],
		['{ {sep}', '{ {separator}'],
		['{', '{'],
		['\\', '\\'],
		['sep', 'sep'],
		['', '']
	])('%s', (before, after) => {
		expect(renameSeparator(before)).toBe(after);
	});
});
