import { Key } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { atRest, BenchPage, openBrowser, startDemo, typeIn, violationsOf, type RunningDemo } from './demo';

/** The jobs of the bench beside templates: pages, their content, versions, fields of types, and nothing that is lost. */

let demo: RunningDemo;
let browser: Awaited<ReturnType<typeof openBrowser>>;
let bench: BenchPage;

beforeAll(async () => {
	demo = await startDemo();
	browser = await openBrowser();
	bench = new BenchPage(browser.driver, demo);
});
afterAll(async () => {
	await browser?.quit();
	demo?.stop();
});

const keys = (...all: string[]) => typeIn(browser.driver, ...all);
const released = async (path: string) =>
	(await fetch(`${demo.kephalon}/api/sites/${encodeURIComponent(demo.site)}/head?path=${path}`)).text();
const pageAt = async (path: string) =>
	(await (
		await fetch(`${demo.kephalon}/api/sites/${encodeURIComponent(demo.site)}/page?path=${encodeURIComponent(path)}`)
	).json()) as { page?: Record<string, unknown> };
/** Tabs on until the focus stands where it is wanted; gives how many steps that took. */
async function tabTo(wanted: string, most = 40): Promise<number> {
	for (let steps = 0; steps <= most; steps++) {
		if (await browser.driver.executeScript('return document.activeElement?.matches(arguments[0])', wanted))
			return steps;
		await keys(Key.TAB);
	}
	throw new Error(`The focus never came to ${wanted}`);
}

test('a page is written by hand from new to released, wholly by keyboard', async () => {
	await bench.open('/about');
	await bench.press(Key.ALT, 'n');
	await bench.waitForText('[data-testid=sheet-title]', /A new page/);
	await keys('Winter opening');
	await bench.waitForText('[data-testid=sheet]', /Path/);
	expect(await (await bench.find('[data-testid=sheet] input.font-mono')).getAttribute('value')).toBe('/winter-opening');
	await keys(Key.ENTER);
	await bench.waitForText('.mover-path', /\/winter-opening/);
	await bench.waitForText('[data-settings=page]', /What this page says by itself/);
	await browser.driver.wait(
		async () => !(await browser.driver.executeScript('return !!document.querySelector("[data-testid=sheet]")')),
		5000
	);
	await (await bench.find('#room')).sendKeys('');
	await tabTo('#field-summary', 60);
	await keys('Which paths stay open from November on.');
	await bench.waitForText('[data-tag=description] .value', /Which paths stay open/);
	await bench.press(Key.ALT, '7');
	await tabTo('[data-settings=page] [data-select]', 60);
	// The first list is the type's; the state stands two further.
	await browser.driver.executeScript(
		'document.querySelector("[data-settings=page] [data-select][data-value=draft]").focus()'
	);
	await keys('l');
	await bench.waitForText('[data-testid=saved]', /^All kept/);
	await bench.waitForText('[data-testid=pending]', /1 page differs/);
	await bench.press(Key.CONTROL, Key.ENTER);
	await bench.waitForText('[data-testid=told]', /Release \d+ is out/);
	expect(await released('/winter-opening')).toContain('content="Which paths stay open from November on."');
});

test('a text is written as it looks, with a list and a link, and its markup is what templates read', async () => {
	await bench.open('/winter-opening');
	await bench.press(Key.ALT, '4');
	await (await bench.find('#field-body')).click();
	await keys('Paths that stay open:', Key.ENTER, 'the north loop', Key.ENTER, 'the sea wall');
	const tool = (label: string) =>
		browser.driver.executeScript(
			'[...document.querySelectorAll("[role=toolbar] button")].find((one) => one.textContent.trim() === arguments[0]).click()',
			label
		);
	// At once, as a reader of screens may: before the browser has told anybody what is marked.
	await browser.driver.executeScript(`
		const [, first, last] = document.querySelectorAll('#field-body p');
		getSelection().setBaseAndExtent(first.firstChild, 0, last.firstChild, 3);
		[...document.querySelectorAll('[role=toolbar] button')].find((one) => one.textContent.trim() === 'List').click();
	`);
	// The words “sea wall”.
	await keys(Key.chord(Key.CONTROL, Key.END));
	for (let sign = 0; sign < 8; sign++) await keys(Key.chord(Key.SHIFT, Key.ARROW_LEFT));
	await tool('Link');
	await (await bench.find('.address input')).sendKeys('/sea-wall', Key.ENTER);
	const body =
		'<p>Paths that stay open:</p>\n<ul>\n<li>the north loop</li>\n<li>the <a href="/sea-wall">sea wall</a></li>\n</ul>';
	const kept = async () => ((await pageAt('/winter-opening')).page as { fields: { body?: string } }).fields.body;
	await browser.driver
		.wait(async () => (await kept()) === body, 8000)
		.catch(async () => expect(await kept()).toBe(body));
	// Its own steps are taken back first.
	await (await bench.find('#field-body')).click();
	await keys(Key.chord(Key.CONTROL, 'z'));
	await bench.waitForText('[data-testid=saved]', /^All kept/);
	expect(await kept()).not.toContain('href');
	expect(await violationsOf(browser.driver)).toEqual([]);
	// It looks the same when one comes back.
	await bench.open('/winter-opening');
	await bench.press(Key.ALT, '4');
	await bench.waitForText('#field-body li', /the north loop/);
});

test('Ctrl+Enter says why it does nothing', async () => {
	await bench.open('/about');
	await bench.press(Key.CONTROL, Key.ENTER);
	await bench.waitForText('[data-testid=told]', /Nothing differs from release/);
});

describe('languages', () => {
	test('a French version is made, its gap is told, and the two name each other', async () => {
		await bench.open('/winter-opening');
		await bench.press(Key.ALT, '6');
		await bench.waitForText('[data-version=fr]', /There is no version in French yet/);
		await (await bench.find('[data-version=fr] [data-button=plain]')).click();
		await bench.waitForText('[data-testid=sheet-title]', /A version of \/winter-opening in French/);
		await keys('Ouverture d’hiver', Key.ENTER);
		await bench.waitForText('.mover-path', /\/fr\/ouverture-d-hiver/);
		expect((await pageAt('/fr/ouverture-d-hiver')).page).toMatchObject({
			...{ language: 'fr', state: 'draft', alternates: { 'en-GB': '/winter-opening' } }
		});
		// A draft would lead the readers of the other nowhere.
		await bench.open('/winter-opening');
		await bench.press(Key.ALT, '6');
		const path = await bench.find('[data-version=fr] input');
		await path.sendKeys('/fr/ouverture-d-hiver', Key.ENTER);
		await bench.waitForText('[data-settings=page] [role=alert]', /is a draft: its readers would be led nowhere/);
		const response = await fetch(`${demo.kephalon}/api/sites/${encodeURIComponent(demo.site)}/settings`, {
			method: 'PATCH',
			headers: { 'content-type': 'application/json', origin: demo.kephalon },
			body: JSON.stringify({ place: { layer: 'page', path: '/fr/ouverture-d-hiver' }, changes: { state: 'live' } })
		});
		expect(response.status).toBe(200);
		await (await bench.find('[data-version=fr] form [data-button=plain]')).click();
		await bench.waitForText('[data-version=fr]', /Ouverture d’hiver/);
		expect((await pageAt('/winter-opening')).page).toMatchObject({ alternates: { fr: '/fr/ouverture-d-hiver' } });
		await bench.waitForText('[data-settings=page]', /Part the two/);
		expect(await violationsOf(browser.driver)).toEqual([]);
	});

	test('a rule for one language is written beside the one for any', async () => {
		await bench.open('/fr/ouverture-d-hiver');
		await (await bench.find('[data-tag=description]')).click();
		await bench.choose('Language that site says description in', 'fr');
		await bench.write('description', 'site', '{page.summary ?? "Réserves de la côte"}');
		await (await bench.field('description', 'site')).sendKeys(Key.ENTER);
		await bench.waitForText('[data-testid=saved]', /^All kept/);
		await bench.waitForText('[data-tag=description] .value', /Réserves de la côte/);
		await bench.open('/about');
		expect(await bench.valueOf('description')).not.toContain('Réserves');
	});

	test('a tag that names no language is refused in words', async () => {
		await bench.open('/about');
		await bench.press(Key.ALT, '6');
		await (await bench.find('[data-settings=page] input[list=site-languages]')).sendKeys('french please', Key.TAB);
		await bench.waitForText(
			'[data-settings=page] [role=alert]',
			/names no language. Write a tag such as fr for French/
		);
	});
});

describe('types', () => {
	test('a field is renamed with the templates that ask for it', async () => {
		await bench.open('/reserves/ember-heath');
		const before = await bench.valueOf('title');
		await browser.driver.get(`${await browser.driver.getCurrentUrl()}&at=type`);
		await bench.waitForText('[data-testid=pending]', /release/);
		await (await bench.find('[data-field=region] .name')).click();
		await bench.waitForText('[data-field=region] [role=status]', /templates? asks? for it|templates ask for it/);
		const name = await bench.find('[data-field=region] form input');
		await name.sendKeys(Key.chord(Key.CONTROL, 'a'), 'shore', Key.ENTER);
		await bench.waitForText('[data-testid=told]', /The field is called “shore” now/);
		await bench.waitForText('[data-field=shore]', /shore/);
		expect(await bench.valueOf('title')).toBe(before);
		await bench.press(Key.CONTROL, 'z');
		await bench.waitForText('[data-field=region]', /region/);
	});

	test('a starting set shows its reach before it is taken', async () => {
		await (await bench.find('[data-settings=type] [data-disclosure="Starting sets"] > button')).click();
		await browser.driver.executeScript(
			'[...document.querySelectorAll("[data-settings=type] button")].find((one) => one.textContent === "Look at it").click()'
		);
		await bench.waitForText('[data-testid=set-reach]', /\d+ pages? would change/);
	});
});

describe('from the card to the field', () => {
	test('a card’s title leads to its tag, and a double click writes it at the page', async () => {
		await bench.open('/about');
		const title = await bench.find('[data-reader=gangway] [data-way="og:title"]');
		expect(await title.getAttribute('data-tip')).toMatch(/^og:title, /);
		await browser.driver.actions().doubleClick(title).perform();
		await browser.driver.wait(
			async () => (await browser.driver.switchTo().activeElement().getAttribute('aria-label')) === 'og:title at page',
			5000
		);
		await keys('The people of the coast', Key.ENTER);
		await bench.waitForText('[data-reader=gangway] .title', /The people of the coast/);
		await bench.waitForText('[data-testid=saved]', /^All kept/);
	});

	test('what the page says by itself is one list, set back in place', async () => {
		await bench.press(Key.ALT, '5');
		await bench.waitForText('[data-own="og:title"]', /og:title/);
		await (await bench.find('[data-own="og:title"] [data-button=link]')).click();
		await bench.waitForText('[data-settings=page]', /None: all comes from its type/);
		await bench.waitForText('[data-testid=saved]', /^All kept/);
	});

	test('title, description and picture are written for search and for sharing from the keys', async () => {
		await bench.open('/about');
		for (const [key, first, second] of [
			['t', 'title', 'og:title'],
			['d', 'description', 'og:description']
		] as const) {
			await bench.press(Key.ALT, key);
			await bench.waitForText('.stack h2', new RegExp(`^(${first}|${second})$`));
			await bench.press(Key.ALT, key);
			await bench.waitForText('.stack h2', new RegExp(`^(${first}|${second})$`));
		}
		await bench.press(Key.ALT, 'i');
		await bench.waitForText('.stack h2', /^og:image$/);
	});
});

describe('nothing is lost, and every view has its address', () => {
	test('an edit at the page is kept when one leaves at once by a link', async () => {
		await bench.open('/about');
		await bench.write('title', 'page', 'Left at once');
		await (await bench.find('a.room[href*="/pages/"]')).click();
		await bench.waitForText('main', /About|about/);
		await browser.driver.wait(
			async () => JSON.stringify((await pageAt('/about')).page?.rules).includes('Left at once'),
			5000
		);
	});

	test('and when the tab is closed on it', async () => {
		const first = await browser.driver.getWindowHandle();
		await browser.driver.switchTo().newWindow('tab');
		await bench.open('/about');
		await (await bench.find('[data-tag=description]')).click();
		await bench.write('description', 'page', 'Closed on it');
		await browser.driver.close();
		await browser.driver.switchTo().window(first);
		await browser.driver.wait(
			async () => JSON.stringify((await pageAt('/about')).page?.rules).includes('Closed on it'),
			5000
		);
	});

	test('what is typed belongs to the page in view, also when one goes on by key', async () => {
		const valueOf = async (selector: string) => (await bench.find(selector)).getAttribute('value');
		const writeInto = async (selector: string, text: string) => {
			const field = await bench.find(selector);
			await field.clear();
			await field.sendKeys(text);
		};
		await bench.open('/reserves/long-strand');
		await bench.press(Key.ALT, '4');
		await bench.waitForText('[data-settings=page]', /What this page says by itself/);
		await writeInto('[data-field=region] input', 'Far Merrow');
		await bench.press(Key.ALT, Key.ARROW_RIGHT);
		await bench.waitForText('.mover-path', /saltholm-marsh/);
		expect(await valueOf('[data-field=region] input')).not.toBe('Far Merrow');
		// The hand stays in the field of the same name.
		expect(
			await browser.driver.executeScript('return document.activeElement.closest("[data-field]")?.dataset.field')
		).toBe('region');
		await writeInto('[data-field=hectares] input', 'many');
		await keys(Key.TAB);
		await bench.waitForText('[data-field=hectares]', /“many” is no number/);
		await writeInto('[data-field=picture] input', 'javascript:alert(1)');
		await keys(Key.TAB);
		await bench.waitForText('[data-field=picture]', /no card can show it/);
		await bench.press(Key.ALT, Key.ARROW_LEFT);
		await bench.waitForText('.mover-path', /long-strand/);
		expect(await bench.textOf('[data-settings=page]')).not.toMatch(/is no/);
		expect(await valueOf('[data-field=region] input')).toBe('Far Merrow');
		await bench.press(Key.ALT, '7');
		await writeInto('[data-settings=page] input.font-mono', '/reserves/longer-strand');
		await bench.press(Key.ALT, Key.ARROW_RIGHT);
		await bench.waitForText('.mover-path', /saltholm-marsh/);
		await keys(Key.TAB);
		await bench.waitForText('[data-testid=saved]', /^All kept/);
		expect((await pageAt('/reserves/saltholm-marsh')).page).toMatchObject({ path: '/reserves/saltholm-marsh' });
		expect((await pageAt('/reserves/longer-strand')).page).toMatchObject({ fields: { region: 'Far Merrow' } });
		expect(JSON.stringify(await pageAt('/reserves/saltholm-marsh'))).not.toMatch(/Far Merrow|javascript/);
	});

	test('a page that is not there is told with the ways on', async () => {
		await browser.driver.get(`${demo.kephalon}/bench/${encodeURIComponent(demo.site)}?page=/no/such`);
		await bench.waitForText('main', /no page "\/no\/such"/);
		await (await bench.find('main a')).click();
		await bench.waitForText('main', /Path/);
	});

	test('a draft at the site waits through other rooms, told in their bar, and through a reload', async () => {
		await bench.open('/about');
		await bench.write('title', 'site', '{page.title} / waiting');
		await (await bench.find('a.room[href*="/overview/"]')).click();
		await bench.waitForText('.waiting', /One edit waits to be kept/);
		await (await bench.find('.waiting')).click();
		await bench.waitForText('[data-testid=waiting]', /title of the whole site[\s\S]*\{page\.title\} \/ waiting/);
		await (await bench.find('[data-testid=waiting] > a')).click();
		await bench.waitForText('[data-testid=saved]', /1 edit waits to be kept/);
		await browser.driver.navigate().refresh();
		await bench.waitForText('[data-testid=saved]', /1 edit waits to be kept/);
		expect(await (await bench.field('title', 'site')).getText()).toBe('{page.title} / waiting');
		await (await bench.field('title', 'site')).sendKeys(Key.ESCAPE);
		await bench.waitForText('[data-testid=saved]', /^All kept/);
	});

	test('a link that is followed while the room reads itself anew leads where it says', async () => {
		await bench.open('/about');
		// Another tab keeps one edit after the other, from the click on.
		await browser.driver.executeScript(
			`const others = new BroadcastChannel('kephalon ' + arguments[0]);
			const timer = setInterval(() => others.postMessage('kept'), 4);
			setTimeout(() => clearInterval(timer), 3000);
			document.querySelector('a.room[href*="/library/"]').click();`,
			demo.site
		);
		await browser.driver.wait(async () => (await browser.driver.getCurrentUrl()).includes('/library/'), 8000);
	});

	test('page, tag, view and panel stand in the address; back goes where one was', async () => {
		await bench.open('/about');
		await (await bench.find('[data-tag="og:title"]')).click();
		await browser.driver.wait(async () => (await browser.driver.getCurrentUrl()).includes('tag=og%3Atitle'), 5000);
		await browser.driver.sleep(800);
		await bench.press(Key.ALT, 'm');
		await browser.driver.wait(async () => (await browser.driver.getCurrentUrl()).includes('view=markup'), 5000);
		await browser.driver.navigate().refresh();
		await bench.waitForText('[data-testid=pending]', /release/);
		await bench.find('[aria-label="How the head is shown"] [data-state=on]');
		expect(await bench.textOf('[aria-label="How the head is shown"] [data-state=on]')).toBe('Markup');
		await browser.driver.navigate().back();
		await bench.waitForText('[aria-label="How the head is shown"] [data-state=on]', /^Tags$/);
		await bench.waitForText('.stack h2', /^og:title$/);
	});

	test('the first tag is a few steps of the Tab key away', async () => {
		await bench.open('/about');
		await browser.driver.executeScript('document.activeElement.blur(); window.getSelection().removeAllRanges()');
		await (await bench.find('body')).sendKeys(Key.TAB);
		expect(await tabTo('[data-tag]')).toBeLessThan(9);
		await keys(Key.ARROW_DOWN);
		expect(await browser.driver.executeScript('return document.activeElement.dataset.tag')).toBe('description');
	});
});

test('what leads to a page is shown before it is taken away, and taking the edit back brings it again', async () => {
	await bench.open('/winter-opening');
	await browser.driver.get(`${await browser.driver.getCurrentUrl()}&at=page`);
	await bench.waitForText('[data-testid=pending]', /release/);
	await browser.driver.executeScript(
		'[...document.querySelectorAll("button")].find((one) => one.textContent.startsWith("Take this page away")).click()'
	);
	await bench.waitForText('[data-testid=sheet]', /One page names it as a version/);
	await (await bench.find('[data-testid=sheet] [data-button=main]:enabled')).click();
	await bench.waitForText('[data-testid=told]', /\/winter-opening is taken away/);
	expect((await pageAt('/winter-opening')).page).toBeUndefined();
	await bench.press(Key.CONTROL, 'z');
	await browser.driver.wait(async () => (await pageAt('/winter-opening')).page !== undefined, 5000);
});

describe('the template field', () => {
	test('after a variable is chosen the caret stays inside, and going on in plain words leaves the braces', async () => {
		await bench.open('/about');
		const field = await bench.field('title', 'type');
		await field.click();
		await field.sendKeys(Key.chord(Key.CONTROL, 'a'), Key.DELETE, '{page.tit');
		await bench.waitForText('.cm-tooltip-autocomplete', /page\.title/);
		// A choice counts once it has stood for a moment.
		await atRest(browser.driver);
		await field.sendKeys(Key.ENTER);
		await bench.waitForText('.cm-tooltip-autocomplete', /\?\?[\s\S]*\| clip/);
		await field.sendKeys(' on the coast');
		expect(await field.getText()).toBe('{page.title} on the coast');
		await field.sendKeys(Key.chord(Key.CONTROL, 'a'), Key.DELETE, '{page.tit');
		await bench.waitForText('.cm-tooltip-autocomplete', /page\.title/);
		// A choice counts once it has stood for a moment.
		await atRest(browser.driver);
		await field.sendKeys(Key.ENTER);
		await field.sendKeys(' | cl');
		// The list of filters, no longer that of what can follow a variable; a choice counts once it has stood for a moment.
		await bench.waitForText('.cm-tooltip-autocomplete', /^(?![^]*\?\?)[^]*clip/);
		await atRest(browser.driver);
		await field.sendKeys(Key.ENTER);
		expect(await field.getText()).toBe('{page.title | clip 155}');
		await field.sendKeys(Key.ESCAPE, Key.ESCAPE);
	});

	test('Escape closes the list and takes nothing back; Tab leaves it', async () => {
		const field = await bench.field('title', 'type');
		await field.click();
		await field.sendKeys(Key.chord(Key.CONTROL, 'a'), Key.DELETE, 'A {');
		await bench.waitForText('.cm-tooltip-autocomplete', /page\.title/);
		await field.sendKeys(Key.ESCAPE);
		expect(await field.getText()).toBe('A {');
		await field.sendKeys(Key.BACK_SPACE, '{');
		await bench.waitForText('.cm-tooltip-autocomplete', /page\.title/);
		await field.sendKeys(Key.TAB);
		await browser.driver.wait(
			async () => !(await browser.driver.executeScript('return !!document.querySelector(".cm-tooltip-autocomplete")')),
			5000
		);
		await field.click();
		await field.sendKeys(Key.ESCAPE, Key.ESCAPE);
		// What was tried out of sight, so that the first words are fast, leaves nothing behind.
		await browser.driver.wait(
			async () => await browser.driver.executeScript('return !document.querySelector("body > [inert]")'),
			5000
		);
	});
});
