import { afterAll, beforeAll, expect, test } from 'vitest';
import { Key } from 'selenium-webdriver';
import { BenchPage, openBrowser, startDemo, typeIn, violationsOf, type RunningDemo } from './demo';

/** Values in words, words of the site's own and pieces: declared once at their place, used in templates, seen on the page. */
let demo: RunningDemo;
let browser: Awaited<ReturnType<typeof openBrowser>>;
let bench: BenchPage;

beforeAll(async () => {
	demo = await startDemo({ few: false });
	browser = await openBrowser();
	bench = new BenchPage(browser.driver, demo);
});
afterAll(async () => {
	await browser?.quit();
	demo?.stop();
});

const PAGE = '/shop/gannet-mug';
const openSettings = async (layer: string) => {
	await (await bench.find(`[data-layer=${layer}] button.name`)).click();
	await bench.find(`[data-settings=${layer}]`);
};
const back = async () => (await bench.find('[data-settings] .back')).click();
/** Writes into a field by its name, whatever stood there. */
const typeInto = async (label: string, text: string, ...more: string[]) =>
	(await bench.find(`[aria-label="${label}"]`)).sendKeys(Key.chord(Key.CONTROL, 'a'), text, ...more);

test('a yes or no is said in words, and in other words once they are changed at its field', async () => {
	await bench.open(PAGE);
	await bench.write('title', 'type', '{page.stock}[[, {page.title}]]');
	expect(await bench.valueOf('title')).toContain('In stock, Gannet mug');
	await (await bench.field('title', 'type')).sendKeys(Key.ENTER);
	await bench.waitForText('[data-testid=saved]', /^All kept/);
	await openSettings('type');
	await (await bench.find('[data-field=stock] button.name')).click();
	await typeInto('stock, yes, British English', 'Here now');
	expect(await violationsOf(browser.driver)).toEqual([]);
	await back();
	expect(await bench.valueOf('title')).toContain('Here now, Gannet mug');
});

test('words of the site’s own, and a piece that uses them, are written where the site is', async () => {
	await openSettings('site');
	await typeInto('Name of other words', 'book', Key.ENTER);
	await typeInto('Words “book”, British English', 'Order it');
	await (await bench.find('[data-pieces=site] [data-disclosure] > button')).click();
	await typeInto('Name of a new piece', 'call', Key.ENTER);
	const piece = await bench.find(
		'[data-piece=call] .cm-content, [data-piece=call] [contenteditable], [data-piece=call] textarea, [data-piece=call] button:not([data-button=plain]):not(.name)'
	);
	await piece.click();
	await typeIn(browser.driver, '{words.book}[[ for {page.price | money "GBP" "short"}]]');
	await bench.waitForText('[data-piece=call]', /Here: Order it for £11/);
	expect(await violationsOf(browser.driver)).toEqual([]);
	await back();
	await bench.write('title', 'type', '{piece.call}');
	expect(await bench.valueOf('title')).toContain('Order it for £11');
});

const marked = (kind: string) =>
	browser.driver.executeScript<string[]>(
		`return [...document.querySelectorAll('[data-layer=type] .cm-content .part-${kind}')].map((one) => one.textContent)`
	);

test('behind a number stand the filters for numbers, each with what it gives here', async () => {
	await bench.write('title', 'type', '{page.price ');
	const list = await bench.waitForText('.cm-tooltip-autocomplete', /number.*€11\.00/s);
	expect(list).toContain('€11.00');
	expect(list).not.toContain('hashtags');
	// While one chooses, what is begun is not called wrong.
	expect(await bench.textOf('[data-layer=type] .told')).not.toContain('never closed');
	expect(await marked('error')).toEqual([]);
	const [tip, panel] = await browser.driver.executeScript<[DOMRect, number]>(
		"const tip = document.querySelector('.cm-tooltip-autocomplete').getBoundingClientRect(); return [tip.toJSON(), window.innerWidth]"
	);
	expect(tip.left).toBeGreaterThanOrEqual(0);
	expect(tip.right).toBeLessThanOrEqual(panel);
});

test('what is right is marked as it is, whatever stood there before', async () => {
	await bench.write('title', 'type', '{page.title');
	await typeIn(browser.driver, Key.ESCAPE);
	await bench.waitForText('[data-layer=type] .told', /never closed/);
	await browser.driver.wait(async () => (await marked('error')).length > 0, 5000);
	await bench.write('title', 'type', '{fit 12}{page.title}[[ in {page.section}]]');
	await browser.driver.wait(async () => (await marked('value')).length === 2, 5000);
	expect(await marked('error')).toEqual([]);
	expect(await marked('value')).toEqual(['{page.title}', '{page.section}']);
	// There is no room for the section.
	expect(await marked('gone')).toEqual(['{page.section}']);
	expect(await bench.valueOf('title')).toMatch(/^Gannet mug\n|^Gannet mug$/);
});

test('a field of the page above is read, and of one that a field names as soon as it is written', async () => {
	await bench.write('title', 'type', '{page.title}[[ – {page.parent.title}]][[, {page.section.title}]]');
	await browser.driver.wait(async () => (await bench.valueOf('title')).startsWith('Gannet mug – Shop'), 5000);
	await (await bench.find('[data-layer=type] button.name')).click();
	await typeInto('Name of a new field', 'sister', Key.ENTER);
	await bench.choose('Kind of sister', 'page');
	await back();
	await bench.write('title', 'type', '{page.title}[[ or {page.sister.title}]]');
	await bench.press(Key.ALT, '4');
	await (await bench.find('#field-sister')).sendKeys('/shop/hide-blanket');
	await bench.waitForText('[data-field=sister]', /Hide blanket/);
	expect(await bench.valueOf('title')).toContain('Gannet mug or Hide blanket');
	await back();
});

test('a template is told in words where someone asks, and pinned from the palette', async () => {
	await bench.open(PAGE);
	await bench.write('title', 'type', '{page.title}[[ in {page.section}]]');
	await (await bench.find('[data-layer=type] .words > button')).click();
	await bench.waitForText(
		'[data-layer=type] .words',
		/The title, then where there is the section: \(‘ in ’, then the section\)\./
	);
	await (await bench.field('title', 'type')).sendKeys(Key.ENTER);
	await bench.press(Key.CONTROL, 'k');
	await (await bench.find('[role=dialog] input')).sendKeys('Pin what this page', Key.ENTER);
	await bench.waitForText('[data-testid=pin]', /Pinned to “Gannet mug in Shop”/);
	await bench.write('title', 'type', '{page.title}');
	await bench.waitForText('[data-testid=pin]', /which it no longer says/);
	await bench.waitForText('[data-layer=type] [data-testid=reach]', /1 page would no longer say what it is pinned to/);
	expect(await violationsOf(browser.driver)).toEqual([]);
	// All pins of the page stand with what it says by itself, and go from there.
	await bench.press(Key.ALT, '5');
	await bench.waitForText('[data-settings=page]', /Pinned: title, description, og:title, og:description, og:image/);
});

/** Presses a button by its words, in the layer of the type or in a sheet, as soon as it is there. */
const pressed = (name: string) =>
	browser.driver.wait(
		() =>
			browser.driver.executeScript<boolean>(
				`const button = [...document.querySelectorAll('[data-layer=type] button, [role=dialog] button')].find(
					(one) => one.innerText.trim() === arguments[0] && one.checkVisibility());
				button?.click();
				return button !== undefined;`,
				name
			),
		10_000,
		`There is no button “${name}”`
	);

test('what is wrong with a template is mended by the word beside it', async () => {
	await bench.open(PAGE);
	await bench.write('title', 'type', '{page.titel} for {page.price | money}');
	await bench.waitForText('[data-layer=type] .told', /Did you mean "page.title"\?/);
	await pressed('Write “page.title”');
	await bench.waitForText('[data-layer=type] .told', /^(?![^]*Did you mean)/);
	await pressed('Write “money "EUR"”');
	expect(await bench.textOf('[data-layer=type] .told')).not.toMatch(/takes|Unknown/);
	expect(await bench.valueOf('title')).toContain('Gannet mug for €11.00');
});

test('a template is tried on the pages that are hard on it, against another, and the better one is taken', async () => {
	await bench.write('title', 'type', '{fit 20}{page.title}[[ in {page.section}]][[ – {site.name}]]');
	await pressed('On hard pages');
	await bench.waitForText('[role=dialog]', /the longest title/);
	await bench.waitForText('[role=dialog]', /\[\[ – \{site\.name\}\]\] gives way on \d+ pages? of \d+/);
	expect(await violationsOf(browser.driver)).toEqual([]);
	await (await bench.find('[role=dialog] [aria-label="Another template"]')).click();
	await typeIn(browser.driver, '{fit 60}{page.title}');
	await bench.waitForText('[role=dialog]', /Nothing tells them apart|comes out better on/);
	// Escape in the field is the field's: the sheet stays.
	await typeIn(browser.driver, Key.ESCAPE);
	expect(await bench.textOf('[role=dialog]')).toMatch(/On the pages that are hard on it/);
	await typeIn(browser.driver, '{page.title}, new');
	await bench.waitForText('[role=dialog] thead', /Against/);
	await pressed('Take the second');
	expect(await bench.valueOf('title')).toMatch(/^Gannet mug, new\n/);
});

test('every sign and filter is told with an example, those of the template first', async () => {
	await bench.write('title', 'type', '{page.title | case "upper"}[[ for {page.price}]]');
	await (await bench.find('[data-layer=type] [aria-label="Signs and filters"]')).click();
	const told = await bench.waitForText('[role=dialog]', /In this template/);
	expect(told.indexOf('GANNET HEAD')).toBeLessThan(told.indexOf('Other signs'));
	expect(told.indexOf('case')).toBeLessThan(told.indexOf('Other filters'));
	expect(told).toContain('The first sentence.');
	await pressed('Close');
});

test('for a type that says nothing of its titles, a template is proposed from its records', async () => {
	await bench.open('/reserves/gannet-head');
	await (await bench.find('[data-tag="twitter:title"]')).click();
	await pressed('Propose one');
	await bench.waitForText('[data-layer=type] .told', /Proposed from the records of this type: .+ on \d+ of \d+/);
	expect(await bench.valueOf('twitter:title')).toMatch(/^Gannet Head – /);
	await bench.waitForText('[data-layer=type] [data-testid=reach]', /would change/);
});
