import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { By, Key } from 'selenium-webdriver';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { BenchPage, openBrowser, startDemo, violationsOf, type RunningDemo } from './demo';

/** Pictures from the file to the website: dropped, studied, cut, composed, released and fetched. */
let demo: RunningDemo;
let browser: Awaited<ReturnType<typeof openBrowser>>;
let bench: BenchPage;
const folder = mkdtempSync(join(tmpdir(), 'kephalon-pictures-'));
beforeAll(async () => {
	demo = await startDemo();
	browser = await openBrowser();
	bench = new BenchPage(browser.driver, demo);
});
afterAll(async () => {
	await browser?.quit();
	demo?.stop();
	rmSync(folder, { recursive: true, force: true });
});

const RED = '#c81e1e';
const BLUE = '#1e3cc8';
/** A wide picture, red at the left and blue at the right: what is cut from it tells by its colour where. */
async function twoColours(): Promise<string> {
	const half = (background: string) => sharp({ create: { width: 1500, height: 1000, channels: 3, background } });
	const file = join(folder, 'halves.png');
	await sharp({ create: { width: 3000, height: 1000, channels: 3, background: RED } })
		.composite([{ input: await half(BLUE).png().toBuffer(), left: 1500, top: 0 }])
		.png()
		.toFile(file);
	return file;
}

/** Drops a file on an element, as a person drops it from the desktop. */
async function drop(selector: string, file: string, type: string) {
	const zone = await bench.find(selector);
	await browser.driver.executeScript(
		`const [zone, data, name, type] = arguments;
		const bytes = Uint8Array.from(atob(data), (sign) => sign.charCodeAt(0));
		const transfer = new DataTransfer();
		transfer.items.add(new File([bytes], name, { type }));
		for (const kind of ['dragover', 'drop'])
			zone.dispatchEvent(new DragEvent(kind, { bubbles: true, cancelable: true, dataTransfer: transfer }));`,
		zone,
		readFileSync(file).toString('base64'),
		file.split('/').at(-1),
		type
	);
}

const released = async () => {
	await (await bench.find('.bar [data-button=main]:enabled')).click();
	await bench.waitForText('[data-testid=pending]', /All as in release/);
};
const imagesOf = async (path: string, tag = 'og:image') => {
	const html = await (await fetch(demo.website + path)).text();
	return [...html.matchAll(new RegExp(`"${tag}" content="https://merrowcoast.example(/[^"]+)"`, 'g'))].map(
		([, address]) => address as string
	);
};
async function fetched(address: string) {
	const answer = await fetch(demo.website + address);
	const bytes = Buffer.from(await answer.arrayBuffer());
	const { width, height, format } = await sharp(bytes).metadata();
	const { dominant } = await sharp(bytes).stats();
	const colour = dominant.b > dominant.r + 60 ? 'blue' : dominant.r > dominant.b + 60 ? 'red' : 'other';
	return { width, height, format, colour, kept: answer.headers.get('cache-control'), bytes: bytes.length };
}

/** How far from the left, in shares, each card's picture is cut. */
async function cutsInCards(): Promise<Record<string, number>> {
	return browser.driver.executeScript(`
		const cuts = {};
		for (const card of document.querySelectorAll('[data-reader]')) {
			const svg = card.querySelector('svg[viewBox]:has(image)');
			if (svg) cuts[card.dataset.reader] = svg.viewBox.baseVal.x / Number(svg.querySelector('image').getAttribute('width'));
		}
		return cuts;`);
}
const WITH_PICTURES = ['gangway', 'headland', 'ropewalk', 'galley', 'bottle', 'wrack'];

describe('a picture of one page', () => {
	const page = '/walks/low-tide-for-beginners';

	test('what is no picture is refused, and why; nothing is changed', async () => {
		writeFileSync(join(folder, 'none.jpg'), 'no picture');
		await bench.open(page);
		await (await bench.find('[data-tag="og:image"]')).click();
		await drop('[data-layer=page] .zone', join(folder, 'none.jpg'), 'image/jpeg');
		await bench.waitForText('[data-layer=page] [data-testid=refused]', /no picture that can be read/);
		expect(await bench.valueOf('og:image')).toContain('-wide-500-500.jpg');
	});

	test('is dropped in place, described, and cut as the site says', async () => {
		await drop('[data-layer=page] .zone', await twoColours(), 'image/png');
		await bench.waitForText('[data-layer=page] ol', /2400 × 800: used/);
		// It is larger than readers use, which is said; it is kept whole, and cut from that.
		await bench.waitForText('[data-layer=page] [data-testid=as-sent]', /3,000 × 1,000.*goes out at 2,400 × 800/);
		await (await bench.find('[data-layer=page] input.alt')).sendKeys('Two colours');
		await bench.waitForText('[data-tag="og:image:alt"] .value', /^Two colours(\n|$)/);
		await bench.waitForText('[data-testid=saved]', /^All kept, last at/);
		const cuts = await cutsInCards();
		expect(Object.keys(cuts).sort()).toEqual([...WITH_PICTURES].sort());
		for (const reader of WITH_PICTURES) expect(cuts[reader], reader).toBeGreaterThan(0.1);
	});

	test('its point is moved by keys and by pointer, and every card follows', async () => {
		await (await bench.find('.stack [data-button=plain]')).click();
		const pad = await bench.find('[data-testid=focus]');
		await pad.click();
		await browser.driver
			.actions()
			.keyDown(Key.SHIFT)
			.sendKeys(...Array(6).fill(Key.ARROW_LEFT))
			.keyUp(Key.SHIFT)
			.perform();
		expect(await pad.getAttribute('aria-valuetext')).toMatch(/^0 % from the left/);
		let cuts = await cutsInCards();
		for (const reader of WITH_PICTURES) expect(cuts[reader], reader).toBe(0);
		const box = await pad.getRect();
		await browser.driver
			.actions()
			.move({ origin: pad, x: 0, y: 0 })
			.press()
			.move({ origin: pad, x: Math.round(box.width * 0.4), y: 10 })
			.release()
			.perform();
		expect(Number(await pad.getAttribute('aria-valuenow'))).toBeGreaterThan(85);
		cuts = await cutsInCards();
		for (const reader of WITH_PICTURES) expect(cuts[reader], reader).toBeGreaterThan(0.3);
		await bench.waitForText('[data-testid=picture] [data-testid=reach]', /1 page would change/);
	});

	test('one shape is moved by itself', async () => {
		await (await bench.find('[data-shape=tall]')).click();
		const pad = await bench.find('[data-testid=focus]');
		await pad.click();
		await browser.driver
			.actions()
			.keyDown(Key.SHIFT)
			.sendKeys(...Array(10).fill(Key.ARROW_LEFT))
			.keyUp(Key.SHIFT)
			.perform();
		await bench.waitForText('[data-shape=tall]', /by itself/);
		const wide = (await cutsInCards()).gangway;
		expect(wide).toBeGreaterThan(0.3);
		await (await bench.find('[data-testid=picture] [data-testid=reach] [data-button=main]')).click();
		await bench.waitForText('[data-testid=saved]', /^All kept, last at/);
		expect(await violationsOf(browser.driver)).toEqual([]);
	});

	test('is released, and the website serves its cuts: their size, their form, their part', async () => {
		await released();
		const [wide, tall] = await imagesOf(page);
		expect(await fetched(wide!)).toMatchObject({
			...{ width: 1200, height: 630, format: 'jpeg', colour: 'blue' },
			kept: expect.stringContaining('immutable')
		});
		expect(await fetched(tall!)).toMatchObject({ width: 667, height: 1000, format: 'webp', colour: 'red' });
		const [double] = await imagesOf(page, 'twitter:image');
		expect(await fetched(double!)).toMatchObject({ width: 1024, height: 512, format: 'webp', colour: 'blue' });
	});

	test('its sources are put in another order by pointer', async () => {
		await (await bench.find('[data-testid=picture] .back')).click();
		const items = () =>
			browser.driver.findElements(By.css('[data-layer=site] ol[aria-label^="Picture sources"] li .what'));
		const names = async () => Promise.all((await items()).map(async (item) => (await item.getText()).split('\n')[0]));
		const before = await names();
		await browser.driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', (await items())[1]);
		const [first, , third] = await items();
		// The driver makes no drags of the browser's own: the events that they come as are sent.
		await browser.driver.executeScript(
			`const [from, to] = arguments;
			const send = (element, kind) =>
				element.dispatchEvent(
					new DragEvent(kind, { bubbles: true, cancelable: true, dataTransfer: new DataTransfer() })
				);
			send(from, 'dragstart');
			if (send(to, 'dragover')) throw new Error('Nothing may be dropped there.');
			send(to, 'drop');`,
			first,
			third
		);
		const after = [before[1], before[2], before[0], before[3]].join();
		await browser.driver.wait(async () => (await names()).join() === after, 5000, 'The order never changed');
		await bench.waitForText('[data-layer=site] [data-testid=reach]', /would change/);
		await (await bench.find('[data-layer=site] [data-testid=reach] [data-button=plain]')).click();
		expect(await names()).toEqual(before);
	});

	test('is set back to inherited in one gesture', async () => {
		await (await bench.find('[data-layer=page] .kind [data-button=link]')).click();
		await bench.waitForText('[data-testid=saved]', /^All kept, last at/);
		await bench.waitForText('[data-layer=page] .kind', /^Inherits/);
	});
});

describe('share pictures', () => {
	test('are begun from a layout, drawn on the page in view and on the hard ones', async () => {
		await bench.open('/walks/gannets-by-boat');
		await bench.press(Key.ALT, 's');
		await bench.waitForText('.layouts', /Horizon.*Gatepost.*Nameplate.*Shelf/s);
		const gatepost = await browser.driver.findElements(By.css('.layouts button'));
		await gatepost[1]!.click();
		const drawn = await bench.find('[data-testid=share]');
		await browser.driver.wait(async () => (await drawn.getAttribute('naturalWidth')) === '1200', 10_000);
		await bench.waitForText('.hard', /the longest title/);
		await bench.waitForText('[data-testid=reach]', /0 pages would change/);
	});

	test('a part is moved by pointer and by numbers, never out of the picture', async () => {
		const title = await bench.find('[data-part=title]');
		const before = await title.getAttribute('aria-label');
		await browser.driver
			.actions()
			.move({ origin: title })
			.press()
			.move({ origin: title, x: 30, y: 12 })
			.release()
			.perform();
		await browser.driver.wait(async () => (await title.getAttribute('aria-label')) !== before, 5000);
		await title.sendKeys(...Array(8).fill(Key.ARROW_RIGHT));
		const left = await bench.find('.box label:first-child input');
		await left.clear();
		await left.sendKeys('5000', Key.TAB);
		expect(await title.getAttribute('aria-label')).toMatch(/ at 572, /);
		await left.clear();
		await left.sendKeys('64', Key.TAB);
		expect(await title.getAttribute('aria-label')).toMatch(/^Title: 628 by 300 at 64, /);
	});

	test('a template that cannot be read is told at its place and not kept', async () => {
		const field = await bench.find('[aria-label="Title of the share picture"]');
		await field.click();
		await field.sendKeys(Key.chord(Key.CONTROL, 'a'), Key.DELETE, '{page.titel');
		await bench.waitForText('.parts .issue', /./);
		await field.sendKeys(Key.ENTER);
		await bench.waitForText('.parts [data-testid=refused]', /title of the share picture cannot be kept/);
		await field.sendKeys(Key.chord(Key.CONTROL, 'a'), Key.DELETE, '{{', Key.ESCAPE);
		await field.sendKeys(Key.chord(Key.CONTROL, 'a'), Key.DELETE, '{page.title}');
		await field.sendKeys(Key.ESCAPE);
	});

	test('are asked for by the type, drawn for all its pages, released and fetched', async () => {
		await (await bench.find('.parts .note [data-button=link]')).click();
		await bench.waitForText('.parts', /pages would change/);
		for (let count = 2; count > 0; count--) {
			await (await bench.find('.parts [data-testid=reach] [data-button=main]')).click();
			await browser.driver.wait(
				async () => (await browser.driver.findElements(By.css('.parts [data-testid=reach]'))).length < count,
				10_000
			);
		}
		const draw = await bench.find('[data-testid=compose] [data-button=plain]:enabled');
		await draw.click();
		// Those that were looked at are there already.
		const told = await bench.waitForText('[data-testid=compose]', /drawn now, \d had not changed/);
		const [, drawn, kept] = /(\d) drawn now, (\d) had not changed/.exec(told)!;
		expect(Number(drawn) + Number(kept)).toBe(4);
		await (await bench.find('[data-testid=compose] [data-button=plain]:enabled')).click();
		await bench.waitForText('[data-testid=compose]', /0 drawn now, 4 had not changed/);
		expect(await violationsOf(browser.driver)).toEqual([]);
		await released();
		const [share] = await imagesOf('/walks/gannets-by-boat');
		expect(share).toMatch(/^\/media\/share-/);
		expect(await fetched(share!)).toMatchObject({ width: 1200, height: 630, format: 'jpeg' });
		const html = await (await fetch(`${demo.website}/walks/gannets-by-boat`)).text();
		expect(html).toContain('<meta property="og:image:alt" content="Gannets by boat">');
	});
});

describe('the library', () => {
	const open = () => browser.driver.get(`${demo.kephalon}/library/${encodeURIComponent(demo.site)}`);

	test('shows what there is, where it is used, and finds by words', async () => {
		await open();
		await bench.waitForText('.wall', /boat\.jpg/);
		await (await bench.find('[aria-label="Find a picture"]')).sendKeys('hoop');
		await bench.waitForText('.wall > ul', /^hoopoe\.jpg/);
		await bench.waitForText('[data-testid=chosen]', /On the card of 1 page:\s*\/sightings\/hoopoe-in-the-car-park/);
		expect(await violationsOf(browser.driver)).toEqual([]);
	});

	test('words in another language are kept with the picture, and reach the pages in it', async () => {
		await (await bench.find('[aria-label="Find a picture"]')).sendKeys(Key.chord(Key.CONTROL, 'a'), 'marsh');
		await bench.waitForText('[data-testid=chosen] h2', /marsh/);
		await (await bench.find('input[lang=fr]')).sendKeys('Le marais');
		await bench.waitForText('[data-testid=chosen] [data-testid=reach]', /0 pages would change/);
		await (await bench.find('[data-testid=chosen] [data-testid=reach] [data-button=main]')).click();
		await bench.waitForText('[data-testid=saved]', /^All kept, last at/);
		await open();
		await (await bench.find('[aria-label="Find a picture"]')).sendKeys('marais');
		await bench.waitForText('[data-testid=chosen] h2', /marsh/);
	});

	test('takes several files at once, says what it refused, and lets go of what nothing uses', async () => {
		await open();
		const file = join(folder, 'dots.png');
		await sharp({ create: { width: 900, height: 500, channels: 3, background: '#3f6f4f' } })
			.png()
			.toFile(file);
		const field = await bench.find('.wall input[type=file]');
		await field.sendKeys(`${join(folder, 'none.jpg')}\n${file}`);
		await bench.waitForText('.wall [data-testid=refused]', /none\.jpg: The file is no picture/);
		await bench.waitForText('[data-testid=chosen] h2', /dots\.png/);
		await bench.waitForText('[data-testid=chosen]', /Nowhere/);
		await (await bench.find('[data-testid=chosen] [data-button=plain]')).click();
		await bench.waitForText('[data-testid=told]', /dots\.png is out of the library/);
	});
});

describe('what stands at /media', () => {
	const status = async (name: string) => (await fetch(`${demo.kephalon}/media/${name}`)).status;
	test.each([
		'..%2Fdemo.db',
		`${'0'.repeat(24)}.jpg`,
		`${'0'.repeat(24)}-wide-500-500.jpg`,
		`share-${'0'.repeat(24)}.jpg`,
		'x.svg'
	])('%s is not there', async (name) => expect(await status(name)).toBe(404));

	test('the icons and the manifest of the site are served, in their sizes', async () => {
		const html = await (await fetch(`${demo.website}/`)).text();
		const icons = [...html.matchAll(/rel="icon" href="https:\/\/merrowcoast\.example(\/[^"]+)"[^>]* sizes="(\d+)x/g)];
		expect(icons.map(([, , size]) => Number(size))).toEqual([16, 32, 48, 96, 192]);
		for (const [, address, size] of icons)
			expect(await fetched(address!)).toMatchObject({ width: Number(size), height: Number(size), format: 'png' });
		const manifest = (await (await fetch(`${demo.website}/manifest.webmanifest`)).json()) as {
			icons: { src: string }[];
		};
		for (const { src } of manifest.icons) expect((await fetched(`/${src}`)).format).toBe('png');
	});
});
