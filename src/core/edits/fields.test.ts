import { describe, expect, test } from 'vitest';
import type { ContentType, Page, Site } from '../model';
import { asksForField, renameFieldInTemplate } from '../template/variables';
import { renameFieldInType, usesOfField } from './fields';

describe('a field in templates', () => {
	test.each([
		['{page.region}', '{page.area}'],
		['a {page.region ?? page.title | clip 20} b', 'a {page.area ?? page.title | clip 20} b'],
		['[[ in {page.region}[[, {page.region | case "upper"}]]]]', '[[ in {page.area}[[, {page.area | case "upper"}]]]]'],
		['{page.region.name}', '{page.area.name}'],
		// The name in a text, in another root and as the beginning of a longer one is not the field.
		['\\{page.region} {site.region} {page.regional ?? "page.region"}', undefined],
		// What cannot be read stays as it is.
		['{page.region', undefined]
	])('%s', (source, wanted) => {
		expect(renameFieldInTemplate(source, 'region', 'area')).toBe(wanted ?? source);
		expect(asksForField(source, 'region')).toBe(wanted !== undefined);
	});
});

const site = { rules: [{ tag: 'description', kind: 'template', template: '{page.region}' }] } as unknown as Site;
const type: ContentType = {
	name: 'walk',
	fields: [{ name: 'region', kind: 'text' }],
	rules: [
		{ tag: 'title', kind: 'template', template: '{page.title}, {page.region}' },
		{ tag: 'og:image', kind: 'pictures', sources: [{ from: 'field', name: 'region' }, { from: 'lead' }] },
		{ tag: 'og:title', kind: 'borrow', from: 'title' }
	],
	pictureBy: { field: 'region', pictures: {} }
};

test('its uses are found in every layer, of its own type alone', () => {
	const rules = [{ tag: 'title', kind: 'template', template: '{page.region}', language: 'fr' }] as const;
	const page = (path: string, of: string) => ({ path, type: of, rules }) as unknown as Page;
	expect(usesOfField(site, type, [page('/a', 'walk'), page('/b', 'other')], 'region')).toEqual([
		{ layer: 'site', of: '', tag: 'description', template: '{page.region}' },
		{ layer: 'type', of: 'walk', tag: 'title', template: '{page.title}, {page.region}' },
		{ layer: 'type', of: 'walk', tag: 'og:image', template: '' },
		{ layer: 'page', of: '/a', tag: 'title', language: 'fr', template: '{page.region}' }
	]);
});

test('a type whose field was renamed no longer asks for the old name', () => {
	const after = renameFieldInType(type, 'region', 'area');
	expect(after.fields).toEqual([{ name: 'area', kind: 'text' }]);
	expect(after.pictureBy?.field).toBe('area');
	expect(usesOfField({ rules: [] } as unknown as Site, after, [], 'region')).toEqual([]);
	expect(usesOfField({ rules: [] } as unknown as Site, after, [], 'area')).toHaveLength(2);
});

describe('a type with a layout', () => {
	const text = (template: string) => ({ template, size: 60, weight: 'bold', area: 'lower-left' });
	const withLayout = (line?: string) =>
		({
			...type,
			layout: { title: text('{page.title}, {page.region}'), ...(line && { line: text(line) }) }
		}) as unknown as ContentType;
	const renamed = (one: ContentType) => renameFieldInType(one, 'region', 'area').layout;
	test('has its texts renamed, and nothing else of them', () => {
		expect(renamed(withLayout('In {page.region}'))).toEqual({
			title: text('{page.title}, {page.area}'),
			line: text('In {page.area}')
		});
	});
	test('keeps its other fields as they are', () => {
		const two = { ...type, fields: [...type.fields, { name: 'month', kind: 'text' as const }] };
		expect(renameFieldInType(two, 'region', 'area').fields).toEqual([
			{ name: 'area', kind: 'text' },
			{ name: 'month', kind: 'text' }
		]);
	});
	test('gets no line that it has not', () => {
		expect(renamed(withLayout())).toEqual({ title: text('{page.title}, {page.area}') });
		expect(renameFieldInType(type, 'region', 'area')).not.toHaveProperty('layout');
	});
	test('uses the field where its texts ask for it', () => {
		const uses = usesOfField({ rules: [] } as unknown as Site, withLayout('{page.region}'), [], 'region');
		expect(uses.filter((use) => use.isLayout)).toEqual([
			{ layer: 'type', of: 'walk', tag: 'title', isLayout: true, template: '{page.title}, {page.region}' },
			{ layer: 'type', of: 'walk', tag: 'line', isLayout: true, template: '{page.region}' }
		]);
	});
	test('keeps pictures by another field', () => {
		const other = { ...type, pictureBy: { field: 'month', pictures: { May: { src: '/may.jpg' } } } };
		expect(renameFieldInType(other, 'region', 'area').pictureBy).toEqual(other.pictureBy);
		const { pictureBy: _, ...without } = type;
		expect(renameFieldInType(without, 'region', 'area')).not.toHaveProperty('pictureBy');
	});
});
