import fc from 'fast-check';
import { expect, test } from 'vitest';
import { withoutStyleAttributes, withStyleNonce } from './pageStyles';

const page = (body: string) =>
	`<!doctype html><html><head><title>A</title></head><body nonce="N">${body}</body></html>`;
const ofBody = (html: string) => withoutStyleAttributes(page(html)).split('<body nonce="N">')[1];

test('what stood in an attribute stands in a rule of the page, with its nonce', () => {
	expect(
		withoutStyleAttributes(page('<p class="a" style="width: 4px; left: 50%" id="b">x</p><br style="left: 0"/>'))
	).toBe(
		'<!doctype html><html><head><title>A</title>' +
			'<style nonce="N">[data-style="0"][data-style][data-style][data-style]{width: 4px; left: 50%}[data-style="1"][data-style][data-style][data-style]{left: 0}</style>' +
			'</head><body nonce="N"><p class="a" data-style="0" id="b">x</p><br data-style="1"/></body></html>'
	);
	expect(withoutStyleAttributes(page('<p>x</p>'))).toBe(page('<p>x</p>'));
});

test('text and other attributes that look like one stay as they are', () => {
	for (const same of [
		'<p>style="left: 0" <b>y</b></p>',
		'<p title="a style=">&lt;p style="left: 0">x</p>',
		'<p title=" style=" class="left: 0">x</p>',
		'<p data-x="1 > 0 style=">x</p>',
		'<!-- <p style -->'
	])
		expect(ofBody(same)).toBe(`${same}</body></html>`);
	expect(ofBody('<p title="1 > 0" style="left: 0">x</p>')).toContain('<p title="1 > 0" data-style="0">');
});

test.each([
	'red} body{display:none',
	'x</style><script>',
	'a:url(&quot;//b&quot;)',
	'a/**/',
	'@import x',
	'\\7d',
	"a:'"
])('what is not plain goes into no rule: %s', (value) => {
	const html = withoutStyleAttributes(page(`<p style="${value}">x</p>`));
	expect(html).toBe(page('<p>x</p>'));
});

test('a page without a nonce has none of either', () => {
	const bare = '<html><head></head><body><p style="left: 0">x</p></body></html>';
	expect(withoutStyleAttributes(bare)).toBe('<html><head></head><body><p>x</p></body></html>');
});

test('no style attribute is left of any page, and nothing else changes', () => {
	const value = fc.string({ unit: fc.constantFrom('a', ' ', '>', '=', "'", '/', ';', ':', '{', '}', '*') });
	const attribute = fc.tuple(fc.constantFrom('class', 'style', 'title', 'data-style-x'), value);
	const element = fc.tuple(fc.constantFrom('p', 'svelte-x', 'h2'), fc.array(attribute, { maxLength: 4 }), value);
	fc.assert(
		fc.property(fc.array(element), (elements) => {
			const write = (kept: (name: string) => boolean) =>
				elements
					.map(([tag, attributes, text]) => {
						const said = attributes.filter(([name]) => kept(name)).map(([name, is]) => ` ${name}="${is}"`);
						return `<${tag}${said.join('')}>${text}</${tag}>`;
					})
					.join('');
			const changed = withoutStyleAttributes(page(write(() => true)));
			const [, body] = changed.split('<body nonce="N">');
			expect(body!.replaceAll(/ data-style="\d+"/g, '')).toBe(`${write((name) => name !== 'style')}</body></html>`);
			expect((changed.match(/<style/g) ?? []).length).toBeLessThanOrEqual(1);
		})
	);
});

test('the policy takes the nonce of the page, and nothing where styles are not bound', () => {
	expect(withStyleNonce("default-src 'self'; style-src 'self'; script-src 'self' 'nonce-A='")).toBe(
		"default-src 'self'; style-src 'self' 'nonce-A='; script-src 'self' 'nonce-A='"
	);
	for (const same of [
		"style-src 'self' 'unsafe-inline'; script-src 'nonce-A='",
		"style-src 'self'",
		"default-src 'none'"
	])
		expect(withStyleNonce(same)).toBe(same);
});
