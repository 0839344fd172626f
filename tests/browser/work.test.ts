import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { By, Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { BenchPage, openBrowser, startDemo, violationsOf, type RunningDemo } from './demo';

/** The work of a day, from a new site to the last page's override. */

let demo: RunningDemo;
let browser: Awaited<ReturnType<typeof openBrowser>>;
let bench: BenchPage;
let folder = '';

beforeAll(async () => {
	demo = await startDemo();
	browser = await openBrowser();
	bench = new BenchPage(browser.driver, demo);
	folder = mkdtempSync(join(tmpdir(), 'kephalon-site-'));
});
afterAll(async () => {
	await browser?.quit();
	demo?.stop();
	rmSync(folder, { recursive: true, force: true });
});

const text = 'A long enough first paragraph for a page about the islands, so that it can be taken for its summary.';
function writeSite() {
	mkdirSync(join(folder, 'isles'));
	const write = (name: string, title: string, body = text) =>
		writeFileSync(join(folder, name), `<!doctype html><title>${title}</title><h1>${title}</h1><p>${body}</p>`);
	write(
		'index.html',
		'Home',
		'Boats, birds and beds on four islands of the made-up Sound of Ferran, all the year round.'
	);
	write('isles/marl.html', 'Marl', `${text} Marl has a pier.`);
	write('isles/skoor.html', 'Skoor', `${text} Skoor has none.`);
}

describe('a new site, from a folder to the first release', () => {
	test('content, address and words; what is missing is told as the worst cards', async () => {
		writeSite();
		await browser.driver.get(`${demo.kephalon}/setup`);
		const type = async (placeholder: string, value: string) => {
			const field = await bench.find(`input[placeholder="${placeholder}"]`);
			await field.sendKeys(Key.chord(Key.CONTROL, 'a'), Key.DELETE, value);
		};
		await bench.find('[data-button=main]:disabled');
		await type('Merrow Coast Reserves', 'Ferran Isles');
		await type('https://www.site.example/', 'ferranisles.example');
		await bench.waitForText('[data-testid=refused]', /not an absolute http or https address/);
		await (await bench.find('[data-testid=refused] button')).click();
		await type('/home/me/site/public', join(folder, 'nowhere'));
		await (await bench.find('[data-button=main]:enabled')).click();
		await bench.waitForText('[data-testid=refused]', /nowhere may not be read, or is not there/);
		await type('/home/me/site/public', folder);
		await (await bench.find('[data-button=main]:enabled')).click();
		await bench.waitForText('#worst .cards', /No picture/);
		const worst = await bench.textOf('#worst .cards');
		expect(worst).toContain('The home page calls itself “Home”');
		expect(await bench.textOf('.mends')).toContain('3 pages Give the site a share picture');
		await (await bench.find('#words textarea')).sendKeys('Four islands in one sound, and how to get there.', Key.TAB);
		await bench.waitForText('nav .saved', /All kept, last at/);
	});

	test('from a table of thousands of rows, some of them bad, in an old encoding: told first, then read', async () => {
		const row = (at: number) => `/walks/${at};Späte Wanderung ${at};${text} Number ${at}.;${1 + (at % 9)}.5.2026`;
		const rows = Array.from({ length: 6000 }, (_, at) => row(at));
		rows.splice(
			40,
			0,
			'/short;Zu kurz',
			';No path;Nothing says where it stands.;1.5.2026',
			'/walks/3;Twice;Again.;2.5.2026'
		);
		rows[50] = '/walks/soon;Bald;Soon.;bald';
		const file = join(folder, 'walks.csv');
		writeFileSync(file, Buffer.from(`path;title;Anriss;published\r\n${rows.join('\r\n')}\r\n`, 'latin1'));
		await browser.driver.get(`${demo.kephalon}/setup`);
		const type = async (placeholder: string, value: string) => {
			const field = await bench.find(`input[placeholder="${placeholder}"]`);
			await field.sendKeys(Key.chord(Key.CONTROL, 'a'), Key.DELETE, value);
		};
		await type('Merrow Coast Reserves', 'Ferran Walks');
		await type('https://www.site.example/', 'https://walks.example');
		await (await bench.find('input[value=table]')).click();
		await (await bench.find('input[type=file]')).sendKeys(file);
		await bench.waitForText('.content', /6,003 rows, of which 6,001 pages can be made; written in windows-1252/);
		await bench.waitForText('[data-testid=sheet]', /left out: .*path/);
		await bench.waitForText('.content', /2 odd things were borne/);
		const meaning = await bench.find('input[aria-label="Meaning of Anriss"]');
		await meaning.sendKeys(Key.chord(Key.CONTROL, 'a'), Key.DELETE, 'summary', Key.TAB);
		await bench.waitForText('[data-testid=sheet]', /summary: A long enough first paragraph/);
		expect(await violationsOf(browser.driver)).toEqual([]);
		await (await bench.find('[data-button=main]:enabled')).click();
		await bench.waitForText('.asks[role=status]', /6,001 pages read/);
		expect(await bench.textOf('.asks[role=status]')).toMatch(/Row 43.*path[^]*Row 44.*\/walks\/3/);
		const first = await fetch(`${demo.kephalon}/api/sites/Ferran%20Walks/page?path=/walks/0`);
		expect(((await first.json()) as { page: object }).page).toMatchObject({
			fields: { title: 'Späte Wanderung 0', published: '2026-05-01' }
		});
	});

	test('what most titles have is taken off, told, and set back by one button', async () => {
		const book = mkdtempSync(join(tmpdir(), 'kephalon-book-'));
		for (const [at, name] of ['Boats', 'Birds', 'Beds', 'Bridges', 'Bells', 'Bays'].entries())
			writeFileSync(
				join(book, `${name}.html`),
				`<!doctype html><html lang="en"><title>${at + 1}. ${name} — The Sound of Ferran</title><p>${name}: ${text}</p>`
			);
		await browser.driver.get(`${demo.kephalon}/setup`);
		const type = async (placeholder: string, value: string) => {
			const field = await bench.find(`input[placeholder="${placeholder}"]`);
			await field.sendKeys(Key.chord(Key.CONTROL, 'a'), Key.DELETE, value);
		};
		const titled = async () => {
			const page = await fetch(`${demo.kephalon}/api/sites/Ferran%20Book/page?path=/Birds.html`);
			return ((await page.json()) as { page: { fields: { title: string } } }).page.fields.title;
		};
		await type('Merrow Coast Reserves', 'Ferran Book');
		await type('https://www.site.example/', 'https://book.example');
		await type('/home/me/site/public', book);
		await (await bench.find('[data-button=main]:enabled')).click();
		await bench.waitForText('.asks[role=status]', /Taken off the titles[^]*6 pages end with “ — The Sound of Ferran”/);
		expect(await titled()).toBe('Birds');
		await browser.driver.executeScript(
			'[...document.querySelectorAll(".asks button")].find((one) => one.textContent.includes("Set them back")).click()'
		);
		await bench.waitForText('.asks[role=status]', /Take it off: templates can put the site’s name there/);
		expect(await titled()).toBe('2. Birds — The Sound of Ferran');
		rmSync(book, { recursive: true, force: true });
	});

	test('axe-core finds nothing on the set-up', async () => {
		expect(await violationsOf(browser.driver)).toEqual([]);
	});

	test('a title template at the site, and the first release', async () => {
		await browser.driver.get(`${demo.kephalon}/bench/Ferran%20Isles?page=/isles/marl.html`);
		await bench.waitForText('[data-testid=pending]', /Nothing is released yet/);
		await bench.write('title', 'site', '{page.title} {separator} {site.name}');
		await bench.waitForText('[data-layer=site] [data-testid=reach]', /3 pages would change/);
		await (await bench.field('title', 'site')).sendKeys(Key.ENTER);
		await bench.waitForText('[data-tag=title] .value', /^Marl · Ferran Isles/);
		await bench.waitForText('[data-testid=saved]', /^All kept/);
		await (await bench.find('.bar [data-button=main]:enabled')).click();
		await bench.waitForText('[data-testid=pending]', /All as in release 1/);
		const head = await fetch(`${demo.kephalon}/api/sites/Ferran%20Isles/head?path=/isles/marl.html`);
		expect(await head.text()).toContain('<title>Marl · Ferran Isles</title>');
	});
});

describe('a template mended through its hardest page', () => {
	test('the hard pages come one after the other; the gap is seen, and mended', async () => {
		await bench.open('/reserves/gannet-head');
		await (await bench.find('[data-tag="og:title"]')).click();
		await bench.write('og:title', 'type', '{page.title} in {page.region}');
		await (await bench.field('og:title', 'type')).sendKeys(Key.ENTER);
		await bench.waitForText('[data-testid=pending]', /pages differ/);
		const seen: string[] = [];
		// Three pages are the hardest in five ways: each comes once.
		for (let round = 0; round < 3; round++) {
			await bench.press(Key.ALT, 'h');
			await bench.waitForText('[data-testid=told]', new RegExp(`^${round + 1} of 3 hard pages`));
			seen.push(`${await bench.textOf('[data-testid=told]')} ${await bench.textOf('.mover-path .font-mono')}`);
		}
		expect(seen[0]).toMatch(/the longest title .*the-skerries/);
		const missing = seen.find((line) => line.includes('most fields missing'));
		expect(missing).toContain('/reserves/hollin-wood');
		await bench.open('/reserves/hollin-wood');
		await (await bench.find('[data-tag="og:title"]')).click();
		await bench.waitForText('[data-layer=type] .told', /Empty here: page.region/);
		expect(await bench.valueOf('og:title')).toContain('Hollin Wood in');
		await bench.write('og:title', 'type', '{page.title}[[ in {page.region}]]');
		await bench.waitForText('[data-layer=type] .told', /left out with its words/);
		await bench.waitForText('[data-layer=type] [data-testid=reach]', /1 page would change/);
		await (await bench.field('og:title', 'type')).sendKeys(Key.ENTER);
		await bench.waitForText('[data-tag="og:title"] .value', /^Hollin Wood$/m);
		expect(await bench.textOf('[data-reader=gangway] .title')).toBe('Hollin Wood');
	});

	test('picture sources are put in another order by keys and say what they give', async () => {
		await bench.open('/reserves/ember-heath');
		await (await bench.find('[data-tag="og:image"]')).click();
		expect(await bench.textOf('[data-testid=weak]')).toMatch(/Too small for Gangway.*: 160 pixels wide/);
		await bench.choose('How type says og:image', 'pictures');
		await bench.waitForText('[data-layer=type] ol', /lead picture\s+heath-small.jpg, .*: used/);
		const width = await bench.find('[data-layer=type] input[type=number]');
		await width.sendKeys('600', Key.TAB);
		await bench.waitForText('[data-layer=type] ol', /narrower than 600/);
		await bench.waitForText('[data-layer=type] ol', /coast.jpg, 1600 × 900: used/);
		await bench.waitForText('[data-tag="og:image:alt"] .value', /^The Merrow shore at low tide/);
		const last = await bench.find('[data-layer=type] ol li:last-child');
		await browser.driver.executeScript('arguments[0].focus()', last);
		await bench.press(Key.ALT, Key.ARROW_UP);
		await bench.waitForText(
			'[data-layer=type] ol',
			/2\s+The first in its text[\s\S]*3\s+The site’s share picture[\s\S]*4\s+The type’s own/
		);
		await (await bench.find('[data-layer=type] .actions [data-button=plain]')).click();
		await bench.waitForText('[data-testid=saved]', /^All kept/);
	});
});

describe('one page, wholly by keyboard', () => {
	test('overridden, seen in every card, set back', async () => {
		await bench.open('/visit');
		await bench.press(Key.CONTROL, 'k');
		await (await bench.find('[data-testid=palette-input]')).sendKeys('orca');
		await bench.waitForText('[data-testid=palette-results]', /orca-off-the-skerries/);
		await bench.press(Key.ENTER);
		await bench.waitForText('.mover-path .font-mono', /orca/);
		await bench.press(Key.CONTROL, 'k');
		await (await bench.find('[data-testid=palette-input]')).sendKeys('og:title');
		await bench.waitForText('[data-testid=palette-results]', /og:title/);
		await bench.press(Key.ENTER);
		await bench.waitForText('.stack h2', /^og:title$/);
		await bench.goTo('1', 'og:title at page');
		// `{` offers what fits there, with its value here; Enter takes it.
		await bench.press('{');
		await bench.press('p');
		await bench.waitForText('.cm-tooltip-autocomplete', /page\.place\s*Where\s*the Outer Isles/);
		for (const key of 'age.pla') await bench.press(key);
		await bench.waitForText('.cm-tooltip-autocomplete', /^page\.place/);
		await bench.press(Key.ENTER);
		await browser.driver.actions().sendKeys(': four orcas').perform();
		await bench.waitForText('[data-layer=page] [data-testid=yield]', /^the Outer Isles: four orcas$/);
		await bench.press(Key.ENTER);
		await bench.waitForText('[data-testid=saved]', /^All kept, last at/);
		for (const reader of ['gangway', 'headland', 'ropewalk', 'galley', 'bottle', 'wrack'])
			expect(await bench.textOf(`[data-reader=${reader}] .title`), reader).toBe('the Outer Isles: four orcas');
		expect(await bench.textOf('[data-reader=porthole] .title')).not.toContain('four orcas');
		await bench.press(Key.CONTROL, 'z');
		await bench.waitForText('[data-reader=gangway] .title', /^“Orca!”/);
		await bench.press(Key.CONTROL, 'y');
		await bench.waitForText('[data-reader=gangway] .title', /^the Outer Isles/);
		// Emptied, it inherits again.
		await bench.press(Key.CONTROL, 'a');
		await bench.press(Key.DELETE);
		await bench.press(Key.ENTER);
		await bench.waitForText('[data-reader=gangway] .title', /^“Orca!”/);
		await bench.waitForText('[data-testid=saved]', /^All kept, last at/);
	});

	test('the sheet of keys opens by key and closes', async () => {
		await browser.driver.executeScript('document.activeElement.blur()');
		await bench.press('?');
		await bench.waitForText('[data-testid=sheet]', /Next hard page of this type/);
		await bench.press(Key.ESCAPE);
		await bench.press(Key.ALT, 'm');
		await bench.waitForText('.markup', /<meta property="og:title"/);
	});
});

describe('two tabs', () => {
	test('a later edit of the same thing sees a conflict, and nothing is lost', async () => {
		await bench.open('/walks/gannets-by-boat');
		await bench.write('title', 'type', '{page.title}, a walk {separator} {site.name}');
		const first = await browser.driver.getWindowHandle();
		await browser.driver.switchTo().newWindow('tab');
		await bench.open('/walks/dusk-on-ember-heath');
		await bench.write('title', 'type', '{page.title}, with us');
		await (await bench.field('title', 'type')).sendKeys(Key.ENTER);
		await bench.waitForText('[data-testid=saved]', /^All kept, last at/);
		await browser.driver.switchTo().window(first);
		await bench.waitForText('[data-layer=type] .conflict', /it says “{page.title}, with us” now. Yours is still here/);
		expect(await (await bench.field('title', 'type')).getText()).toBe('{page.title}, a walk {separator} {site.name}');
		// Enter does not put it over the other one unasked.
		await (await bench.field('title', 'type')).sendKeys(Key.ENTER);
		await bench.find('[data-layer=type] .conflict');
		await (await bench.find('[data-layer=type] .conflict [data-button=main]')).click();
		await bench.waitForText('[data-testid=saved]', /^All kept, last at/);
		expect(await bench.valueOf('title')).toContain('Gannets by boat, a walk · Merrow');
		await bench.press(Key.CONTROL, 'z');
		await bench.waitForText('[data-tag=title] .value', /^Gannets by boat, with us/);
	});
});

describe('a page by itself', () => {
	const setting = async (name: string) =>
		browser.driver.findElement(
			By.xpath(
				`//span[@class and contains(., "${name}")]/ancestor::label//*[self::input or self::button or self::textarea]`
			)
		);

	test('its path changes and leaves a redirect; a phrase is looked for; a copy is a draft', async () => {
		await bench.open('/sightings/hoopoe-in-the-car-park');
		await (await bench.find('[data-layer=page] button.name')).click();
		await (await setting('Target phrase')).sendKeys('hoopoe');
		await bench.waitForText('[data-testid=target]', /The title has it; the description does not have it/);
		await (await setting('Path')).sendKeys(Key.chord(Key.CONTROL, 'a'), '/sightings/hoopoe', Key.TAB);
		await bench.waitForText('.mover-path .font-mono', /^\/sightings\/hoopoe$/);
		await bench.waitForText('[data-testid=saved]', /^All kept/);
		await bench.open('/sightings/hoopoe-in-the-car-park');
		await bench.waitForText('.mover-path .font-mono', /^\/sightings\/hoopoe$/);
		await (await bench.find('[data-layer=page] button.name')).click();
		await (await bench.find('input[aria-label="Path of the copy"]')).sendKeys('/sightings/hoopoe-again', Key.ENTER);
		await bench.waitForText('.mover-path .font-mono', /^\/sightings\/hoopoe-again$/);
		await bench.waitForText('header .state', /draft: not released/);
	});

	test('axe-core finds nothing on its settings, on the markup, in the palette', async () => {
		await bench.open('/reserves/gannet-head');
		await (await bench.find('[data-layer=page] button.name')).click();
		await (await bench.find('.views button:nth-child(2)')).click();
		expect(await violationsOf(browser.driver)).toEqual([]);
		await bench.press(Key.CONTROL, 'k');
		await bench.find('[data-testid=palette-input]');
		expect(await violationsOf(browser.driver)).toEqual([]);
	});
});
