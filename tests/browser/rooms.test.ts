import { writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { By, Key, until, type WebElement } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { atRest, openBrowser, startDemo, violationsOf, type RunningDemo } from './demo';

/** The rooms of a site, driven as their users drive them. */
let demo: RunningDemo;
let browser: Awaited<ReturnType<typeof openBrowser>>;

beforeAll(async () => {
	demo = await startDemo();
	browser = await openBrowser();
});
afterAll(async () => {
	await browser?.quit();
	demo?.stop();
});

const open = (room: string, query = '') =>
	browser.driver.get(`${demo.kephalon}/${room}/${encodeURIComponent(demo.site)}${query}`);
const find = (css: string): Promise<WebElement> => browser.driver.wait(until.elementLocated(By.css(css)), 15_000);
const textOf = async (css: string) => (await find(css)).getText();
/** Waits until something on the screen says what is meant. */
const says = (css: string, wanted: RegExp) =>
	browser.driver.wait(
		async () => {
			const all = await browser.driver.findElements(By.css(css));
			for (const one of all) if (wanted.test(await one.getText().catch(() => ''))) return true;
			return false;
		},
		15_000,
		`${css} never said ${wanted}`
	);
const click = (text: string) =>
	browser.driver.executeScript(
		`const one = [...document.querySelectorAll('button, a')].find((one) => one.textContent.trim().startsWith(arguments[0]) && !one.disabled);
		if (!one) throw new Error('no button ' + arguments[0]); one.click();`,
		text
	);
const keys = (...all: string[]) =>
	browser.driver
		.actions()
		.sendKeys(...all)
		.perform();
const rowOf = async (path: string) => {
	const rows = await browser.driver.findElements(By.css('.all .line'));
	for (const row of rows) if ((await row.getText()).includes(path)) return row;
	throw new Error(`no row ${path}`);
};

describe('pages', () => {
	test('all pages stand in a table, are found, filtered and sorted; the filter stands in the address', async () => {
		await open('pages');
		await says('[data-testid=count]', /^23 pages/);
		await (await find('input[type=search]')).sendKeys('heath');
		await says('[data-testid=count]', /^\d+ pages? by this filter/);
		expect(await browser.driver.getCurrentUrl()).toContain('q=heath');
		await browser.driver.navigate().refresh();
		await says('[data-testid=count]', /by this filter/);
		await click('All pages again');
		await says('[data-testid=count]', /^23 pages$/);
		await click('Findings');
		await open('pages', '?finding=cut');
		await says('[data-testid=count]', /^2 pages by this filter/);
		await open('pages');
		// By typing what one looks for.
		await (await find('[data-select][aria-label="Only those …"]')).click();
		await (await find('[aria-label^="Search among"]')).sendKeys('cut', Key.ENTER);
		await says('[data-testid=count]', /^2 pages by this filter/);
		expect(new URL(await browser.driver.getCurrentUrl()).searchParams.get('finding')).toBe('cut');
		// Taken out again, the focus is at what one would choose next.
		await (await find('[aria-label="No longer only Finding"]')).click();
		await says('[data-testid=count]', /^23 pages$/);
		await browser.driver.wait(
			async () => (await browser.driver.switchTo().activeElement().getAttribute('aria-label')) === 'Only those …',
			5000,
			'The focus is lost'
		);
	});

	test('by keys like a sheet: a cell is written at its page, and taken back', async () => {
		await open('pages');
		await says('[data-testid=count]', /^23 pages/);
		await rowOf('/about');
		await browser.driver.executeScript(`document.querySelector('[role=grid]').focus()`);
		// From the first row to the third, from the path to the title.
		await keys(Key.ARROW_DOWN, Key.ARROW_DOWN, Key.ARROW_RIGHT, 'N');
		await (await find('.cell input')).sendKeys('ew words', Key.ENTER);
		await says('[data-testid=told]', /title of \/about is written at the page/);
		await browser.driver.wait(async () => (await (await rowOf('/about')).getText()).includes('New words'), 15_000);
		await click('Take it back');
		await says('[data-testid=told]', /Taken back/);
		await browser.driver.wait(async () => (await (await rowOf('/about')).getText()).includes('About us'), 15_000);
	});

	test('cells are copied to a spreadsheet, and pasted from one: a block of two columns, as one edit', async () => {
		await open('pages', '?type=reserve');
		await says('[data-testid=count]', /^7 pages/);
		await says('[aria-rowindex="4"]', /\/reserves\//);
		const table = await find('[role=grid]');
		await table.sendKeys(Key.ARROW_RIGHT, Key.chord(Key.SHIFT, Key.ARROW_RIGHT));
		for (let row = 0; row < 2; row++) await table.sendKeys(Key.chord(Key.SHIFT, Key.ARROW_DOWN));
		const board = (what: string, text = '') =>
			browser.driver.executeScript<string>(
				`const data = new DataTransfer();
				if (arguments[1]) data.setData('text/plain', arguments[1]);
				document.querySelector('[role=grid]').dispatchEvent(new ClipboardEvent(arguments[0], { clipboardData: data, bubbles: true }));
				return data.getData('text/plain');`,
				what,
				text
			);
		const rows = (await board('copy')).split('\n').map((row) => row.split('\t'));
		expect(rows.map((row) => row.length)).toEqual([2, 2, 2]);
		// Back as it was, it writes nothing: no page gets words of its own.
		await board('paste', rows.map((row) => row.join('\t')).join('\r\n'));
		await says('[data-testid=told]', /Nothing is written\. 6 cells say that already\./);
		// Quotation marks that enclose no cell are words, and swallow nothing.
		await board('paste', '"Orca!" & more\r\nThe second');
		await says('[data-testid=told]', /^2 cells are written at their pages\./);
		await says('[aria-rowindex="2"]', /"Orca!" & more/);
		await says('[aria-rowindex="3"]', /The second/);
		await click('Take it back');
		const first = async () => (await browser.driver.findElement(By.css('[aria-rowindex="2"]'))).getText();
		await browser.driver.wait(async () => (await first()).includes(rows[0]![0]!), 15_000);
		// The second row has no title; the third has more cells than there are columns to write.
		await board(
			'paste',
			`${rows[0]![0]}\tFrom a sheet, one\r\n\t"From a sheet,\n""two"""\r\nThree\tThree again\tlost\r\n`
		);
		await says(
			'[data-testid=told]',
			/5 cells are written at their pages\. 1 cell says that already\. 1 is in columns that only show/
		);
		const third = async () => (await browser.driver.findElement(By.css('[aria-rowindex="4"]'))).getText();
		await browser.driver.wait(async () => /Three[^]*Three again/.test(await third()), 15_000);
		await open('pages', '?from=description%3Apage');
		await says('[data-testid=count]', /^3 pages/);
		await says('[role=grid]', /From a sheet, "two"/);
		await open('pages', '?from=title%3Apage');
		await says('[data-testid=count]', /^1 page /);
		// One edit, taken back as one.
		await open('bench');
		await says('[data-testid=pending]', /3 pages differ/);
		await (await find('body')).sendKeys(Key.chord(Key.CONTROL, 'z'));
		await says('[data-testid=pending]', /All as in release 1/);
		await open('pages', '?from=description%3Apage');
		await says('[data-testid=count]', /^0 pages/);
	});

	test('many are changed at once: said first, kept as one edit, taken back as one', async () => {
		await open('pages', '?type=reserve');
		await says('[data-testid=count]', /^7 pages/);
		await (await find('[aria-label="Choose all that the filter means"]')).click();
		await says('aside h2', /7 pages chosen/);
		await (await find('aside textarea')).sendKeys('One description for all of them, written at once');
		await click('See what would change');
		await says('[data-testid=sample]', /^7 of the 7 looked at would change/);
		await click('Change 7 pages');
		await says('[data-testid=told]', /7 pages changed, as one edit/);
		await open('pages', '?from=description%3Apage');
		await says('[data-testid=count]', /^7 pages/);
		await (await find('[aria-label="Choose all that the filter means"]')).click();
		await (await find('aside textarea')).sendKeys('Others');
		await click('See what would change');
		await says('[data-testid=sample]', /^7 pages say description themselves: that goes\./);
		await open('releases');
		await says('[data-testid=sheet]', /7 changed/);
		await open('bench');
		await says('[data-testid=pending]', /7 pages differ/);
		await (await find('body')).sendKeys(Key.chord(Key.CONTROL, 'z'));
		await says('[data-testid=pending]', /All as in release 1/);
		await open('pages', '?from=description%3Apage');
		await says('[data-testid=count]', /^0 pages/);
	});

	test('all but some are chosen; a template is written with what is offered, a field in its own form', async () => {
		await open('pages', '?type=reserve');
		await says('[data-testid=count]', /^7 pages/);
		const all = await find('[aria-label="Choose all that the filter means"]');
		await all.click();
		const [first] = await browser.driver.findElements(By.css('.all .line input'));
		await first!.click();
		await says('aside h2', /6 pages chosen/);
		expect([await first!.isSelected(), await all.isSelected()]).toEqual([false, false]);
		const what = async (value: string) => {
			await (await find('aside [data-select]')).click();
			await (await find(`[data-choice="${value}"]`)).click();
		};
		await what('template');
		await (await find('aside .cm-content')).click();
		await find('aside .cm-content:not(.plain)');
		await keys('{page.ti');
		await says('.cm-tooltip-autocomplete', /page\.title/);
		expect(await textOf('#batch-told')).not.toContain('never closed');
		await keys(Key.ENTER, ', seen');
		await says('#batch-told', /^On \/reserves\/\S+:\s+\S.*, seen$/s);
		expect(await violationsOf(browser.driver)).toEqual([]);
		await what('field');
		// Nothing is written yet, and nothing is emptied unless that is said.
		await says('aside', /Empty it instead/);
		expect(await (await find('aside .actions button')).isEnabled()).toBe(false);
		await click('Empty it instead');
		await says('aside', /It is emptied on all of them/);
		await (await find('aside textarea')).sendKeys('One summary for six of them, written into the field.');
		await click('See what would change');
		await says('[data-testid=sample]', /^6 of the 6 looked at would change/);
		await click('Change 6 pages');
		await says('[data-testid=told]', /6 pages changed, as one edit/);
		await click('Take it back');
		await says('[data-testid=told]', /Taken back|taken back/);
	});

	test('columns are as wide and in the order that somebody sets; the path stays; the card of a row is shown', async () => {
		await open('pages', '?type=walk');
		await says('[data-testid=count]', /^\d+ pages/);
		const widthOf = async (at: string) => (await (await find(at)).getRect()).width;
		const before = await widthOf('.cell.title');
		const edge = await find('[data-edge=title]');
		await browser.driver
			.actions()
			.move({ origin: edge })
			.press()
			.move({ origin: edge, x: -80, y: 0 })
			.release()
			.perform();
		expect(Math.abs((await widthOf('.cell.title')) - (before - 80))).toBeLessThan(3);
		await (await find('.cell.title')).click();
		await (await find('.pages-sheet')).sendKeys(Key.chord(Key.ALT, Key.SHIFT, Key.ARROW_RIGHT));
		await browser.driver.wait(async () => Math.abs((await widthOf('.cell.title')) - (before - 64)) < 3, 5000);
		await browser.driver.navigate().refresh();
		await says('[data-testid=count]', /^\d+ pages/);
		await browser.driver.wait(async () => Math.abs((await widthOf('.cell.title')) - (before - 64)) < 3, 5000);
		await click('Columns');
		await (await find('[aria-label^="→ Title"]')).click();
		expect(await violationsOf(browser.driver)).toEqual([]);
		await keys(Key.ESCAPE);
		const heads = async () =>
			browser.driver.executeScript<string[]>(
				`return [...document.querySelectorAll('[role=columnheader] button')].map((one) => one.textContent.trim())`
			);
		expect((await heads()).slice(0, 3)).toEqual(['Path ↑', 'Description', 'Title']);
		await browser.driver.executeScript(`document.querySelector('.pages-sheet').scrollLeft = 600`);
		expect((await (await find('.cell.path')).getRect()).x).toBeLessThan(40);
		await (await find('.cell.description')).click();
		await (await find('.pages-sheet')).sendKeys(Key.chord(Key.ALT, 'c'));
		await says('[data-testid=peeked]', /Gangway/);
		expect(await violationsOf(browser.driver)).toEqual([]);
		await keys(Key.ESCAPE);
		await browser.driver.wait(
			async () => (await browser.driver.findElements(By.css('[data-testid=peeked]'))).length === 0,
			5000
		);
	});

	test('goes out as CSV and comes back changed', async () => {
		const address = `${demo.kephalon}/api/sites/${encodeURIComponent(demo.site)}/csv?columns=path,title&type=about`;
		const text = await (await fetch(address)).text();
		expect(text.split('\r\n')).toHaveLength(4);
		const lines = text
			.split('\r\n')
			.map((line) => (line.startsWith('/visit,') ? line.replace(/,,,,,,(\d+)$/, ',From a spreadsheet,,,,,$1') : line))
			.map((line) => line.replace(/^\/about,[^,]*/, '/about,In the wrong column'));
		const file = join(tmpdir(), `kephalon-${process.pid}.csv`);
		writeFileSync(file, lines.join('\r\n'));
		await open('pages');
		await says('[data-testid=count]', /^23 pages/);
		await (await find('input[type=file]')).sendKeys(file);
		await says('[role=dialog]', /2 rows: 1 cell would change \(1 where a page said nothing itself\)/);
		await says('[role=dialog]', /only shows: not read \(1\)\s+Line \d+, \/about: the column “title” only shows/);
		expect(await violationsOf(browser.driver)).toEqual([]);
		await click('Keep the changes');
		await says('[data-testid=told]', /1 cell was read back, as one edit\. 1 was left\./);
		await open('pages', '?from=title%3Apage');
		await says('[data-testid=count]', /^1 page /);
	});

	test('what a spreadsheet rewrote is set apart, and taken when somebody says so; a workbook comes back as it was', async () => {
		const base = `${demo.kephalon}/api/sites/${encodeURIComponent(demo.site)}`;
		const text = async () => (await fetch(`${base}/csv?columns=path&type=about`)).text();
		const upload = async (name: string, content: string | Buffer) => {
			const file = join(tmpdir(), `kephalon-${process.pid}-${name}`);
			writeFileSync(file, content);
			await (await find('input[type=file]')).sendKeys(file);
		};
		await open('pages');
		await upload('one.csv', (await text()).replace('/about,,', '/about,3.10,'));
		await says('[role=dialog]', /1 cell would change/);
		await click('Keep the changes');
		await says('[data-testid=told]', /1 cell was read back/);
		await upload('two.csv', (await text()).replace('/about,3.10,', '/about,3.1,'));
		await says('[role=dialog]', /0 cells would change/);
		await says(
			'[role=dialog]',
			/Looks rewritten by a spreadsheet: stays as it is here \(1\)\s+Line \d+, \/about: title: “3.10” stays/
		);
		expect(await violationsOf(browser.driver)).toEqual([]);
		await (await find('[role=dialog] .decide input')).click();
		await says('[role=dialog]', /1 cell would change \(1 with other words\)/);
		await (await find('[role=dialog] .decide input')).click();
		await says('[role=dialog]', /0 cells would change/);
		await click('Leave it');
		const workbook = await fetch(`${base}/workbook?columns=path,title&type=about`);
		await upload('three.xlsx', Buffer.from(await workbook.arrayBuffer()));
		await says('[role=dialog]', /2 rows: 0 cells would change, 2 rows are as they were/);
		await click('Leave it');
		await upload('four.csv', (await text()).replace('/about,3.10,', '/about,,'));
		await says('[role=dialog]', /1 cell would change \(1 set back\)/);
		await click('Keep the changes');
		await says('[data-testid=told]', /1 cell was read back/);
	});
});

describe('findings and releases', () => {
	test('a finding is set aside with a reason, and told again', async () => {
		await open('findings');
		await says('li[data-code=cut]', /cut/);
		await browser.driver.executeScript(`[...document.querySelectorAll('li[data-code=cut] button')].at(-1).click()`);
		await (await find('li[data-code=cut] input')).sendKeys('long on purpose', Key.ENTER);
		await says('.aside', /long on purpose/);
		await browser.driver.wait(
			async () => (await browser.driver.findElements(By.css('li[data-code=cut]'))).length === 0,
			15_000
		);
		await click('Tell it again');
		await says('li[data-code=cut]', /cut/);
	});

	test('a release is reviewed, made with a note, compared, and gone back from', async () => {
		await open('releases');
		await says('[data-testid=sheet]', /1 changed/);
		// As a card before and after, in words what differs, and as markup where one asks for it.
		await says('[data-page] [data-testid=cards]', /Before[\s\S]*After[\s\S]*From a spreadsheet/);
		await says('[data-testid=changes]', /title[\s\S]*From a spreadsheet/);
		await (await find('main input[type=checkbox]')).click();
		await says('.lines', /<title>From a spreadsheet/);
		await (await find('main input[type=checkbox]')).click();
		await (await find('input[aria-label="A note on this release"]')).sendKeys('A title from a table');
		await click('Release 1 page');
		await says('[data-testid=told]', /Release 2: 1 changed/);
		await says('.past', /A title from a table/);
		await click('What it changed');
		await says('.compared', /Release 1 and 2: 1 page differ/);
		expect(new URL(await browser.driver.getCurrentUrl()).search).toBe('?from=1&to=2');
		await browser.driver.navigate().refresh();
		await says('.compared', /Release 1 and 2: 1 page differ/);
		await (await find('.compared h2 button')).click();
		expect(new URL(await browser.driver.getCurrentUrl()).search).toBe('');
		await click('Go back to it');
		await says('.back', /undoes what came after on 1 page/);
		await click('Go back to release 1');
		await says('[data-testid=told]', /Release 3 is what release 1 was/);
		const head = await fetch(`${demo.kephalon}/api/sites/${encodeURIComponent(demo.site)}/head?path=/visit`);
		expect(await head.text()).not.toContain('From a spreadsheet');
	});
});

test('the readers see what is served, with what differs from what is written', async () => {
	await open('readers', '?page=/visit');
	await says('[data-testid=served-findings]', /^Nothing is wrong with what is served\.$/);
	await says('figure', /Gangway/);
	await click('Written, released, served');
	await says('tr.not-released', /title/);
	await says('table', /not released yet/);
	// What differs stands first; the same, and what is none of the head's business, are folded.
	expect(await browser.driver.findElements(By.css('table > tbody > tr.same:not([hidden])'))).not.toEqual([]);
	for (const row of await browser.driver.findElements(By.css('tr.same'))) expect(await row.isDisplayed()).toBe(false);
	await says('[data-testid=via]', /^Asked at http:.*, which stands in for https:/);
});

test('the overview answers whether it can be shared; every number opens its pages', async () => {
	await open('overview');
	await says('[data-testid=answer]', /waiting for a release/);
	await says('.worst', /The picture is a logo/);
	await (await find('.launch input[type=checkbox]')).click();
	await browser.driver.navigate().refresh();
	await browser.driver.wait(async () => (await find('.launch input[type=checkbox]')).isSelected(), 15_000);
	await (await find('.worst a')).click();
	await says('[data-testid=count]', /by this filter/);
});

test('the rooms are reached by keys', async () => {
	await open('overview');
	for (const [key, room] of [
		['p', 'pages'],
		['f', 'findings'],
		['v', 'readers'],
		['l', 'library'],
		['r', 'releases'],
		['o', 'overview'],
		['b', 'bench']
	] as const) {
		await find('nav.rooms');
		await (await find('body')).sendKeys(Key.chord(Key.ALT, key));
		await browser.driver.wait(until.urlContains(`/${room}/`), 15_000);
	}
	expect(await textOf('nav [aria-current]')).toBe('Bench');
});

test.each(['overview', 'pages', 'findings', 'readers', 'releases'])(
	'axe-core finds nothing in the room %s',
	async (room) => {
		await open(room, room === 'readers' ? '?page=/' : '');
		if (room === 'readers') await find('figure');
		if (room === 'pages') await find('.all .line');
		await atRest(browser.driver);
		expect(await violationsOf(browser.driver)).toEqual([]);
	}
);
