import { By, until } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { atRest, BenchPage, openBrowser, startDemo, typeIn, violationsOf, type RunningDemo } from './demo';

/** The languages of the interface: English, French, and two that only tests speak. */
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

const ROOMS = ['overview', 'pages', 'findings', 'readers', 'library', 'releases'].map((room) => `/${room}/{site}`);
const BENCH = ['', '&view=markup', '&view=cards', '&view=share', '&at=page', '&at=fields', '&at=versions', '&at=own'];
const LAYERS = ['&at=type', '&at=site', '&tag=og:image', '&at=picture&tag=og:image', '&tag=robots'];
const VIEWS = [
	...['/sites', '/people', '/account', '/setup', '/programs', '/setup?site={site}', '/panel/{site}'],
	...ROOMS,
	...[...BENCH, ...LAYERS].map((rest) => `/bench/{site}?page=/reserves/gannet-head${rest}`)
];
const addressOf = (view: string) => demo.kephalon + view.replace('{site}', encodeURIComponent(demo.site));
async function open(view: string) {
	await browser.driver.get(addressOf(view));
	await browser.driver.wait(until.elementLocated(By.css('main')), 15_000);
	await atRest(browser.driver);
}
async function speak(language: string) {
	await browser.driver.get(`${demo.kephalon}/sites`);
	await browser.driver.manage().addCookie({ name: 'kephalon-language', value: language });
}
const languageOf = () => browser.driver.executeScript<string>('return document.documentElement.lang');

test('a language is chosen under “Look”, is spoken at once and the next time, and nothing typed is lost', async () => {
	const bench = new BenchPage(browser.driver, demo);
	await bench.open('/about');
	expect(await languageOf()).toBe('en-GB');
	await (await bench.find('[data-layer=page] .cm-content')).click();
	// Its editor comes when somebody turns to it.
	await bench.find('[data-layer=page] .cm-content:not(.plain)');
	await typeIn(browser.driver, 'Z');
	await browser.driver.executeScript(
		`[...document.querySelectorAll('button')].find((one) => one.textContent.trim() === 'Look').click()`
	);
	const french = await browser.driver.wait(
		until.elementLocated(By.xpath('//*[@role="menuitemradio"][contains(., "Français")]')),
		5000
	);
	await french.click();
	await browser.driver.wait(async () => (await languageOf()) === 'fr', 15_000);
	await bench.waitForText('nav, header', /Vue d’ensemble/);
	// What was typed is kept at the page, or waits to be.
	await bench.waitForText('[data-tag=title] .value', /Z/);
	await open('/bench/{site}?page=/');
	expect(await languageOf()).toBe('fr');
	await browser.driver.manage().deleteCookie('kephalon-language');
});

test('a browser that asks for French is answered in French, in pages and in refusals; who asks for nothing, in English', async () => {
	const asked = async (path: string, language?: string) =>
		fetch(demo.kephalon + path, { headers: language === undefined ? {} : { 'accept-language': language } });
	const path = `/api/v1/sites/${encodeURIComponent(demo.site)}/page?path=/no-such`;
	expect(await (await asked(path, 'fr-CA, en;q=0.5')).json()).toMatchObject({
		...{ code: 'page-not-there', detail: 'Il n’y a pas de telle page dans ce site.' }
	});
	expect(await (await asked(path)).json()).toMatchObject({ detail: 'There is no such page in this site.' });
	// One after the other and all at once: each in its own.
	const all = await Promise.all(
		Array.from({ length: 24 }, async (_, at) => {
			const language = at % 2 === 0 ? 'fr' : 'en';
			const html = await (await asked(`/findings/${encodeURIComponent(demo.site)}`, language)).text();
			const isFrench = html.includes('lang="fr"') && html.includes('>Constats<') && !html.includes('>Findings<');
			const isEnglish = html.includes('lang="en-GB"') && html.includes('>Findings<') && !html.includes('>Constats<');
			return language === 'fr' ? isFrench : isEnglish;
		})
	);
	expect(all).toEqual(all.map(() => true));
});

describe('in French', () => {
	beforeAll(() => speak('fr'));
	test.each(VIEWS)('axe-core finds nothing on %s, and it says so that it is French', async (view) => {
		await open(view);
		expect(await languageOf()).toBe('fr');
		expect(await violationsOf(browser.driver)).toEqual([]);
	});
});

/** What is cut of buttons, names, headings and the like, though its room could be larger; and what sticks out of the view. */
const CUT = `const told = [];
	const seen = (one) => one.checkVisibility({ opacityProperty: true, visibilityProperty: true }) && one.getClientRects().length > 0;
	for (const one of document.querySelectorAll('button, a, label, legend, h1, h2, h3, th, [role=tab], [role=status], [role=alert], [role=combobox], p')) {
		if (!seen(one) || one.closest('.sr-only, .pages-sheet, [class*="truncate"], [class*="line-clamp"], .cm-editor, [contenteditable], figure')) continue;
		const style = getComputedStyle(one);
		const isHidden = style.overflowX === 'hidden' || style.overflowX === 'clip';
		if (isHidden && one.scrollWidth > one.clientWidth + 1 && !one.querySelector('[class*="truncate"]')) told.push('cut: ' + one.tagName + ' ' + one.textContent.trim().slice(0, 60));
		if (style.overflowY === 'hidden' && one.scrollHeight > one.clientHeight + 2 && one.clientHeight > 0 && !one.querySelector('[class*="truncate"]')) told.push('cut below: ' + one.tagName + ' ' + one.textContent.trim().slice(0, 60));
	}
	const over = document.documentElement.scrollWidth - document.documentElement.clientWidth;
	if (over > 0) told.push('sideways: ' + over);
	return told;`;

describe.each(['en-XA', 'ar-XB'])('words as %s has them', (language) => {
	beforeAll(() => speak(language));
	afterAll(() => browser.driver.manage().window().setRect({ width: 1280, height: 800 }));
	test.each(VIEWS)('nothing of %s is cut, at 1280 and at 390', async (view) => {
		const told: Record<number, string[]> = {};
		for (const width of [1280, 390]) {
			await browser.driver.manage().window().setRect({ width, height: 900 });
			await open(view);
			expect(await languageOf()).toBe(language);
			told[width] = await browser.driver.executeScript<string[]>(CUT);
		}
		expect(told).toEqual({ 1280: [], 390: [] });
	});
});
