import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { Key } from 'selenium-webdriver';
import { BenchPage, openBrowser, startDemo, violationsOf, type RunningDemo } from './demo';

let demo: RunningDemo;
let browser: Awaited<ReturnType<typeof openBrowser>>;
let bench: BenchPage;

beforeAll(async () => {
	// One after the other: when the first fails, nothing of the second is left running.
	demo = await startDemo();
	browser = await openBrowser();
	bench = new BenchPage(browser.driver, demo);
});
afterAll(async () => {
	await browser?.quit();
	demo?.stop();
});

const served = async (path: string) => (await fetch(demo.website + path)).text();

describe('from a template to the visitor', () => {
	test('a type’s template is changed, its reach seen, released and served', async () => {
		const before = await served('/reserves/gannet-head');
		await bench.open('/reserves/gannet-head');
		await bench.write('title', 'type', '{page.title}[[ near {page.region}]] {separator} {site.name}');
		// The result and the cards follow the keystrokes.
		expect(await bench.valueOf('title')).toContain('Gannet Head near West Merrow · Merrow Coast Reserves');
		expect(await bench.textOf('[data-reader=fathom] .title')).toContain('Gannet Head near West Merrow');
		// Of seven reserves the French one has a rule of its own, and Hollin Wood no region.
		await bench.waitForText(
			'[data-layer=type] [data-testid=reach]',
			/5 pages would change, 2 pages under it would not/
		);
		await (await bench.field('title', 'type')).sendKeys(Key.ENTER);
		await bench.waitForText('[data-testid=pending]', /^5 pages differ from release 1$/);
		// Kept is not released.
		expect(await served('/reserves/gannet-head')).toBe(before);
		await (await bench.find('.bar [data-button=main]')).click();
		await bench.waitForText('[data-testid=pending]', /All as in release 2/);
		expect(await served('/reserves/gannet-head')).toContain(
			'<title>Gannet Head near West Merrow · Merrow Coast Reserves</title>'
		);
	});

	test('one page is overridden; its sibling is not', async () => {
		const sibling = await served('/reserves/long-strand');
		await bench.open('/reserves/gannet-head');
		await bench.write('title', 'page', 'Forty thousand gannets {separator} {site.name}');
		await bench.waitForText('[data-layer=page] [data-testid=reach]', /1 page would change/);
		await (await bench.field('title', 'page')).sendKeys(Key.ENTER);
		await bench.waitForText('[data-testid=pending]', /^1 page differs/);
		await (await bench.find('.bar [data-button=main]')).click();
		await bench.waitForText('[data-testid=pending]', /All as in release 3/);
		expect(await served('/reserves/gannet-head')).toContain(
			'<title>Forty thousand gannets · Merrow Coast Reserves</title>'
		);
		expect(await served('/reserves/long-strand')).toBe(sibling);
	});

	test('set back to inherited by emptying the field', async () => {
		await bench.open('/reserves/gannet-head');
		await (await bench.field('title', 'page')).sendKeys(Key.chord(Key.CONTROL, 'a'), Key.DELETE);
		await bench.waitForText('[data-tag="title"] .value', /^Gannet Head near West Merrow/);
		await (await bench.field('title', 'page')).sendKeys(Key.ENTER);
		await bench.waitForText('[data-testid=pending]', /^1 page differs/);
	});
});

describe('what was changed', () => {
	test('stands in the record after a reload, and is taken back from there', async () => {
		await bench.open('/visit');
		const text = await bench.textOf('[data-tag="title"] .value');
		const before = new RegExp(`^${text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}$`);
		await bench.write('title', 'page', 'Come by boat');
		await (await bench.field('title', 'page')).sendKeys(Key.ENTER);
		await bench.waitForText('[data-testid=saved]', /^All kept, last at/);
		await bench.open('/visit');
		await bench.press(Key.ALT, 'e');
		const first = '[data-testid=record] li:first-child';
		await bench.waitForText(`${first} .what`, /title at \/visit: nothing became “Come by boat”/);
		expect(await violationsOf(browser.driver)).toEqual([]);
		await (await bench.find(`${first} button`)).click();
		await bench.waitForText('[data-testid=record] .told', /^Taken back: title at \/visit/);
		await bench.waitForText(`${first} .what`, /^Taken back:/);
		await browser.driver.actions().sendKeys(Key.ESCAPE).perform();
		await bench.waitForText('[data-tag="title"] .value', before);
		// Doing it again, and taking it back, by the keys alone.
		await bench.press(Key.CONTROL, 'y');
		await bench.waitForText('[data-tag="title"] .value', /^Come by boat/);
		await bench.press(Key.CONTROL, 'z');
		await bench.waitForText('[data-tag="title"] .value', before);
	});
});

describe('on the way', () => {
	test('an error is told at its place, and Enter does not keep it', async () => {
		await bench.open('/walks/gannets-by-boat');
		await bench.write('title', 'type', '{page.titel} {separator} {site.name}');
		const told = await bench.waitForText('#field-type-told', /Unknown variable/);
		expect(told).toContain('Unknown variable "page.titel" at 1:2. Did you mean "page.title"?');
		await (await bench.field('title', 'type')).sendKeys(Key.ENTER);
		expect(await bench.textOf('#field-type-told')).toContain('Not kept while it has an error');
		await (await bench.field('title', 'type')).sendKeys(Key.ESCAPE);
		expect(await (await bench.field('title', 'type')).getText()).toBe(
			'{page.title}[[, {page.starts | date "d MMMM"}]] {separator} {site.name}'
		);
	});

	test('pages are moved through by keyboard', async () => {
		await bench.open('/about');
		await bench.press(Key.ALT, Key.ARROW_RIGHT);
		await bench.waitForText('.mover-path .font-mono', /^\/clips\/petrel/);
		await bench.press(Key.CONTROL, 'k');
		await (await bench.find('[data-testid=palette-input]')).sendKeys('petrels');
		await bench.waitForText('[data-testid=palette-results]', /night of the petrels/);
		await browser.driver.actions().sendKeys(Key.ENTER).perform();
		await bench.waitForText('.mover-path .font-mono', /^\/sightings\/night-of-the-petrels/);
	});

	test('a draft at the type goes along to the next page', async () => {
		await bench.open('/people/isla-thornback');
		await bench.write('title', 'type', 'Warden {page.title}');
		await bench.press(Key.ALT, Key.ARROW_RIGHT);
		await bench.waitForText('.mover-path .font-mono', /perran-quill/);
		expect(await bench.valueOf('title')).toContain('Warden Perran Quill');
		// It is still there when the page is loaded again.
		await bench.open('/people/perran-quill');
		expect(await bench.valueOf('title')).toContain('Warden Perran Quill');
		await (await bench.field('title', 'type')).sendKeys(Key.ESCAPE);
		await bench.waitForText('[data-testid=saved]', /^All kept/);
	});

	test('two edits under way each tell their own reach', async () => {
		await bench.open('/visit');
		await bench.write('title', 'site', '{page.title} – {site.name}');
		await bench.write('title', 'page', 'Come and see');
		await bench.waitForText('[data-layer=page] [data-testid=reach]', /1 page would change/);
		// Every type but that of the two about pages has a title of its own.
		await bench.waitForText(
			'[data-layer=site] [data-testid=reach]',
			/2 pages would change, 21 pages under it would not/
		);
		await (await bench.field('title', 'site')).sendKeys(Key.ESCAPE);
		// What touches one page alone is kept by itself, and can be taken back like all that was kept.
		await bench.waitForText('[data-testid=saved]', /All kept, last at/);
		await bench.waitForText('[data-testid=pending]', /^2 pages differ/);
		await bench.press(Key.CONTROL, 'z');
		await bench.waitForText('[data-testid=pending]', /^1 page differs/);
	});

	test('markup in a field is shown as text and does no harm', async () => {
		await bench.open('/sightings/orca-off-the-skerries');
		expect(await bench.valueOf('og:title')).toBe('“Orca!” & other shouts <off the Skerries>');
	});
});

describe('for everyone', () => {
	test.each(['light', 'dark'])('axe-core finds nothing on the bench, %s', async (scheme) => {
		await (
			browser.driver as unknown as { sendDevToolsCommand: (name: string, value: unknown) => Promise<void> }
		).sendDevToolsCommand('Emulation.setEmulatedMedia', {
			features: [{ name: 'prefers-color-scheme', value: scheme }]
		});
		await bench.open('/reserves/hollin-wood');
		await bench.write('title', 'type', '{page.title} in {page.region} {page.nothing}');
		expect(await violationsOf(browser.driver)).toEqual([]);
		await (await bench.field('title', 'type')).sendKeys(Key.ESCAPE);
	});

	test('nothing scrolls sideways at 1280 and at 768 pixels', async () => {
		for (const width of [1280, 768]) {
			await browser.driver.manage().window().setRect({ width, height: 900 });
			await bench.open('/reserves/the-skerries-of-saint-orrin-and-the-lesser-skerry-with-the-old-light');
			const over = await browser.driver.executeScript(
				'return document.documentElement.scrollWidth - document.documentElement.clientWidth'
			);
			expect(over, `at ${width} pixels`).toBe(0);
		}
	});
});
