import { flushSync } from 'svelte';
import { EditorState, TextSelection } from 'prosemirror-state';
import { wrapIn } from 'prosemirror-commands';
import { afterEach, describe, expect, test } from 'vitest';
import { mountIn, write } from '$ui/parts/mounting';
import { linkAt, makeList, setLink, stateOf, styleOf } from './commands';
import { isFaithful, readMarkup, writeMarkup } from './markup';
import RichText from './RichText.svelte';
import { schema } from './schema';

const again = (html: string) => writeMarkup(readMarkup(html));

describe('markup is read and written', () => {
	test.each([
		'',
		'Words alone, 3 &lt; 4 &amp; more',
		'<p>One.</p>\n<p>Two <strong>bold</strong> and <b>bolder</b>, <em>so</em> and <i>so</i>.</p>',
		'<h2 id="way">The way</h2>\n<p class="lead">Go <a href="/north" rel="nofollow">north</a>.</p>',
		'<ul>\n<li>One</li>\n<li>Two <em>more</em></li>\n</ul>',
		'<ol start="3">\n<li><p>Three</p></li>\n<li>Four\n<ul>\n<li>below</li>\n</ul></li>\n</ol>',
		'<blockquote><p>Said.</p>\n<p>And said.</p></blockquote>',
		'<pre><code class="language-js">if (a &lt; b) {\n\treturn;\n}</code></pre>',
		'<pre>\n\n  kept   as it is</pre>',
		'<p>A line<br>and another</p>\n<hr>\n<p><img src="/a.jpg" alt="The &quot;ferry&quot;"> beside</p>',
		'<p>H<sub>2</sub>O, <abbr title="so &amp; so">s.</abbr> and <!-- a remark --> more</p>',
		'<table><tbody><tr><td>1</td></tr></tbody></table>',
		'<figure class="wide"><img src="/b.jpg"><figcaption>It.</figcaption></figure>\n<p>After.</p>',
		'<style>p { color: red }</style>\n<p>After.</p>',
		'<p>A <a href="/x"><strong>bold</strong> link</a> and <a href="/y">another</a></p>',
		'<p>non\u00a0breaking, 漢字, <code>a &lt; b</code></p>'
	])('%s', (html) => {
		expect(again(html)).toBe(html);
		expect(isFaithful(html)).toBe(true);
	});

	test.each([
		['white space between blocks', '<p>One.</p>\n\n\n  <p>Two\n   lines</p>', '<p>One.</p>\n<p>Two lines</p>'],
		[
			'ends that are left out',
			'<ul><li>One<li>Two</ul><p>Three',
			'<ul>\n<li>One</li>\n<li>Two</li>\n</ul>\n<p>Three</p>'
		],
		['signs written as names', '<p>caf&eacute; &#8211; &quot;so&quot;</p>', '<p>café – "so"</p>'],
		[
			'the order of what lies around words',
			'<p><em><strong>both</strong></em></p>',
			'<p><strong><em>both</em></strong></p>'
		],
		['spaces at the ends', '<p> One <em>two</em> </p>', '<p>One <em>two</em></p>'],
		['elements of text, in a list of blocks', '<div><p>In</p></div>text', '<div><p>In</p></div>\ntext']
	])('what is written otherwise and says the same: %s', (_, html, written) => {
		expect(again(html)).toBe(written);
		expect(isFaithful(html)).toBe(true);
	});

	test('tags that a browser passes over are not edited away', () => {
		expect(isFaithful('<p>In</p></div>')).toBe(false);
		expect(isFaithful('<body class="x"><p>In</p></body>')).toBe(false);
	});
	test('an anchor without words stays', () => {
		expect(again('<p><a id="here"></a>There</p>')).toBe('<p><a id="here"></a>There</p>');
	});

	test('documents by chance say the same after it, or are said to be another', () => {
		let state = 7;
		const next = (most: number) => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) % most;
		const pick = <T>(list: readonly T[]) => list[next(list.length)] as T;
		const line = (depth: number): string =>
			Array.from({ length: 1 + next(4) }, () =>
				depth > 0 && next(3) === 0
					? ((tag) => `<${tag}${pick(['', ' class="k"', ' href="/a?b=1&amp;c=2"'])}>${line(depth - 1)}</${tag}>`)(
							pick(['em', 'strong', 'a', 'code', 'span', 'b', 'sup'])
						)
					: pick(['words ', 'more', ' and ', '&lt;', 'é', '<br>', '<img src="/p.jpg">', '  ', '\n'])
			).join('');
		const blocks = (depth: number): string =>
			Array.from({ length: 1 + next(3) }, () => {
				const kind = next(depth > 0 ? 9 : 4);
				if (kind < 2) return `<p>${line(2)}</p>`;
				if (kind === 2) return `<h${1 + next(6)}>${line(1)}</h2>`.replace(/h(\d)>(.*)<\/h2/s, 'h$1>$2</h$1');
				if (kind === 3) return line(1);
				if (kind === 4) return `<ul>${`<li>${blocks(depth - 1)}</li>`.repeat(1 + next(2))}</ul>`;
				if (kind === 5) return `<blockquote>${blocks(depth - 1)}</blockquote>`;
				if (kind === 6) return `<div>${blocks(depth - 1)}</div>`;
				if (kind === 7) return `<pre>${line(0)}</pre>`;
				return `<table><tr><td>${line(1)}</td></tr></table>`;
			}).join(pick(['', '\n', ' ']));
		let faithful = 0;
		for (let at = 0; at < 600; at++) {
			const html = blocks(2);
			if (!isFaithful(html)) continue;
			faithful++;
			const once = again(html);
			expect(again(once), html).toBe(once);
			const words = (markup: string) => {
				const template = document.createElement('template');
				template.innerHTML = markup;
				return template.content.textContent.replace(/\s+/g, '');
			};
			expect(words(once), html).toBe(words(html));
		}
		expect(faithful).toBeGreaterThan(450);
	});
});

/** A state with what stands between two bars marked. */
function at(html: string): EditorState {
	const doc = readMarkup(html.replaceAll('|', ''));
	const marked = readMarkup(html);
	const bars: number[] = [];
	marked.descendants((node, place) => {
		if (!node.isText) return;
		for (let index = node.text!.indexOf('|'); index >= 0; index = node.text!.indexOf('|', index + 1))
			bars.push(place + index - bars.length);
	});
	return EditorState.create({ doc, selection: TextSelection.create(doc, bars[0]!, bars[1] ?? bars[0]!) });
}
function run(html: string, command: ReturnType<typeof setLink>): string | undefined {
	let state = at(html);
	return command(state, (tr) => (state = state.apply(tr))) ? writeMarkup(state.doc) : undefined;
}

describe('commands', () => {
	test('a link is made of what is marked, changed where the caret is, and taken out', () => {
		expect(run('<p>Go |north| now</p>', setLink('/n'))).toBe('<p>Go <a href="/n">north</a> now</p>');
		expect(run('<p>Go <a href="/n" rel="x">no|rth</a> now</p>', setLink('/s'))).toBe(
			'<p>Go <a href="/s" rel="x">north</a> now</p>'
		);
		expect(run('<p>Go <a href="/n">no<strong>r|th</strong></a></p>', setLink(''))).toBe(
			'<p>Go no<strong>rth</strong></p>'
		);
		expect(run('<p>Go |now</p>', setLink('/n'))).toBeUndefined();
		expect(linkAt(at('<p><a href="/a">one</a> <a href="/b">t|wo</a></p>'))?.href).toBe('/b');
		expect(linkAt(at('<p>o|ne <a href="/b">two</a></p>'))).toBeUndefined();
	});
	test('a list is made of blocks, its lines without an element of their own', () => {
		expect(run('<p>|One</p><p>Two|</p>', makeList(schema.nodes.bullets))).toBe(
			'<ul>\n<li>One</li>\n<li>Two</li>\n</ul>'
		);
		expect(run('<ul><li>O|ne</li></ul>', makeList(schema.nodes.bullets))).toBeUndefined();
		expect(run('<p>|One|</p>', wrapIn(schema.nodes.quote))).toBe('<blockquote><p>One</p></blockquote>');
	});
	test('two lines that stand bare do not run into one', () => {
		const bare = (text: string) => schema.nodes.paragraph.create({ bare: true }, schema.text(text));
		expect(writeMarkup(schema.nodes.doc.create(null, [bare('One'), bare('Two')]))).toBe('One\n<p>Two</p>');
	});
	test('the tools say what is at the caret', () => {
		expect(stateOf(at('<ul><li><strong>o|ne</strong></li></ul>'))).toMatchObject({
			...{ strong: true, em: false, bullets: true, numbers: false, quote: false, canLink: false }
		});
		expect(stateOf(at('<blockquote><p>|one| two</p></blockquote>'))).toMatchObject({ quote: true, canLink: true });
		expect([styleOf(at('<h3>o|ne</h3>')), styleOf(at('<p>o|ne</p>')), styleOf(at('<pre>o|ne</pre>'))]).toEqual([
			...['3', 'text', 'code']
		]);
	});
});

describe('the field', () => {
	let takeOut = () => {};
	afterEach(() => takeOut());
	function show(value: string) {
		const set: string[] = [];
		const mounted = mountIn(RichText, { name: 'Body', id: 'body', value, set: (html: string) => set.push(html) });
		takeOut = mounted.takeOut;
		return { target: mounted.target, set };
	}
	test('shows a text as it looks, and changes nothing by being shown', () => {
		const { target, set } = show('<h2>Way</h2><p>Go <strong>north</strong></p>');
		const words = target.querySelector('[role=textbox]')!;
		expect(words.querySelector('h2')?.textContent).toBe('Way');
		expect(words.querySelector('strong')?.textContent).toBe('north');
		expect(words.getAttribute('aria-label')).toBe('Body');
		expect(set).toEqual([]);
	});
	test('nothing of a page is fetched or can be followed', () => {
		const { target } = show(
			'<p><img src="/a.jpg" alt="Ferry"> <a href="javascript:x()">go</a></p><script>x()</' + 'script>'
		);
		expect(target.querySelector('img:not(.ProseMirror-separator), a, script')).toBeNull();
		expect(target.textContent).toContain('picture: Ferry');
		expect(target.querySelector('.link-text')?.getAttribute('title')).toBe('javascript:x()');
	});
	test('what is too long to be compared is edited as it stands, and says so', () => {
		const { target } = show(`<p>${'words '.repeat(90_000)}</p>`);
		expect(target.textContent).toContain('too long to be shown');
		expect(target.querySelector('textarea')).not.toBeNull();
	});
	test('its markup can be written, and what only markup can say stays so', () => {
		const { target, set } = show('<p>One</p>');
		[...target.querySelectorAll('button')].find((one) => one.textContent === 'Markup')!.click();
		flushSync();
		write(target.querySelector('textarea'), '<p>Two</p></div>');
		expect(set).toEqual(['<p>Two</p></div>']);
	});
	test('a piece of a page is edited as it stands, and says so', () => {
		const { target } = show('<p>One</p></div>');
		expect(target.querySelector('textarea')?.value).toBe('<p>One</p></div>');
		expect(target.textContent).toContain('edited as it stands');
		expect(target.querySelector('[role=textbox]')).toBeNull();
	});
});
