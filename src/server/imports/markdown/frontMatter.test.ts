import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { readFrontMatter, writeFrontMatter } from './frontMatter';

const dataOf = (text: string) => {
	const read = readFrontMatter(text);
	return 'wrong' in read ? read.wrong : (read.matter?.data ?? null);
};
const bodyOf = (text: string) => {
	const read = readFrontMatter(text);
	return 'wrong' in read ? undefined : text.slice(read.body);
};

describe('what stands before the text', () => {
	test.each([
		['---\ntitle: A\n---\nText', { title: 'A' }, '\nText'],
		['\uFEFF---\r\ntitle: A\r\n---\r\nText', { title: 'A' }, '\r\nText'],
		['---\n---\nText', {}, '\nText'],
		['+++\ntitle = "A"\n[params]\nx = 1\n+++\nText', { title: 'A', params: { x: 1 } }, '\nText'],
		['{\n"title": "A } {"\n}\n\nText', { title: 'A } {' }, '\n\nText'],
		['Text alone', null, 'Text alone'],
		['Text\n\n---\n\nA rule', null, 'Text\n\n---\n\nA rule'],
		['--- a rule', null, '--- a rule'],
		['{braces} in a text', null, '{braces} in a text']
	])('%j', (text, data, body) => {
		expect(dataOf(text)).toEqual(data);
		expect(bodyOf(text)).toBe(body);
	});
	test.each([
		'---\n a: [1\n---\n',
		'+++\ntitle = \n+++\n',
		'{"a": }',
		'---\n- a\n---\n',
		'---\na: &a [1]\nb: *c\n---\n'
	])('%j cannot be read', (text) => expect(typeof dataOf(text)).toBe('string'));
	test('names that unfold to more than there is room for are refused', () => {
		const lines = ['a0: &a0 [x, x, x, x, x, x, x, x, x]'];
		for (let at = 1; at < 12; at++) lines.push(`a${at}: &a${at} [${`*a${at - 1}, `.repeat(9)}]`);
		expect(dataOf(`---\n${lines.join('\n')}\n---\n`)).toMatch(/alias/i);
	});
});

describe('what is written back', () => {
	test.each([
		[
			'a text',
			'---\ntitle: Old # a remark\ntags: [a, b]\n---\nText',
			'---\ntitle: "New" # a remark\ntags: [a, b]\n---\nText'
		],
		['in quotes', "---\ntitle: 'It''s old'\n---\n", '---\ntitle: "New"\n---\n'],
		['of several lines', '---\ntitle: >\n  Old\n  lines\nafter: 1\n---\n', '---\ntitle: "New"\nafter: 1\n---\n'],
		['one that is empty', '---\ntitle:\nafter: 1\n---\n', '---\ntitle: "New"\nafter: 1\n---\n'],
		['one that is not there', '---\nafter: 1 \n---\nText', '---\nafter: 1 \ntitle: "New"\n---\nText'],
		['line ends of its own', '---\r\nafter: 1\r\n---\r\nText\n', '---\r\nafter: 1\r\ntitle: "New"\r\n---\r\nText\n'],
		['in a file that has none', 'Text', '---\ntitle: "New"\n---\nText'],
		[
			'in TOML',
			'+++\na = 1\ntitle = \'Old\' # x\n[t]\ntitle = "T"\n+++\n',
			'+++\na = 1\ntitle = "New" # x\n[t]\ntitle = "T"\n+++\n'
		],
		['in TOML, of several lines', '+++\ntitle = """\nOld"""\n+++\n', '+++\ntitle = "New"\n+++\n'],
		['in TOML, where it is not', '+++\n[t]\nx = 1\n+++\n', '+++\ntitle = "New"\n[t]\nx = 1\n+++\n'],
		['in JSON', '{\n  "title": "Old",\n  "x": 1.0\n}\nText', '{\n  "title": "New",\n  "x": 1.0\n}\nText'],
		['in JSON, where it is not', '{\n  "x": 1.0\n}\n', '{\n  "title": "New",\n  "x": 1.0\n}\n'],
		['what it is already', "---\ntitle: 'New'\n---\n", "---\ntitle: 'New'\n---\n"]
	])('%s', (_name, text, wanted) => {
		const written = writeFrontMatter(text, new Map([['title', 'New']]));
		expect(written).toBe(wanted);
		expect(dataOf(written as string)).toMatchObject({ title: 'New' });
	});
	test.each(['---\ntitle: [a]\n---\n', '---\ntitle: {a: b}\n---\n', '+++\ntitle = 3\n+++\n'])('%j is left', (text) => {
		expect(writeFrontMatter(text, new Map([['title', 'New']]))).toEqual({
			wrong: 'title holds something else than a text'
		});
	});
	test('any text comes back as it is, in every form', () => {
		const files = [
			'---\na: 1\ntitle: x\n---\nBody\n',
			'+++\na = 1\ntitle = "x"\n+++\nBody\n',
			'{"a": 1, "title": "x"}\nBody\n',
			'Body\n'
		];
		fc.assert(
			fc.property(fc.string({ unit: 'grapheme' }), fc.constantFrom(...files), (value, file) => {
				const text = value.toWellFormed();
				const written = writeFrontMatter(
					file,
					new Map([
						['title', text],
						['other', text]
					])
				) as string;
				expect(dataOf(written)).toMatchObject({ title: text, other: text });
				expect(written.endsWith('Body\n')).toBe(true);
			})
		);
	});
});
