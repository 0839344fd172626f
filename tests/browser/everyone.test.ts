import { By, until } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { weakContrasts } from './contrast';
import { atRest, openBrowser, startDemo, violationsOf, type RunningDemo } from './demo';

/** Every view of the application, for whoever uses it and on whatever screen. */
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
	...['/sites', '/people', '/account', '/setup', '/setup?site={site}', '/bench/{site}?page=/no/such'],
	...ROOMS,
	...[...BENCH, ...LAYERS].map((rest) => `/bench/{site}?page=/reserves/gannet-head${rest}`)
];
async function open(view: string) {
	await browser.driver.get(demo.kephalon + view.replace('{site}', encodeURIComponent(demo.site)));
	await browser.driver.wait(until.elementLocated(By.css('main')), 15_000);
	// What is not in view at first comes when it is asked for.
	await atRest(browser.driver);
}
async function resize(width: number, height: number) {
	const chrome = await browser.driver.executeScript<number>('return window.outerHeight - window.innerHeight');
	await browser.driver
		.manage()
		.window()
		.setRect({ width, height: height + chrome });
}

describe.each(['light', 'dark'])('in %s colours', (scheme) => {
	let measured = 0;
	beforeAll(async () => {
		const features = [{ name: 'prefers-color-scheme', value: scheme }];
		await (
			browser.driver as unknown as { sendDevToolsCommand(name: string, more: object): Promise<void> }
		).sendDevToolsCommand('Emulation.setEmulatedMedia', { features });
		// What scrolls in a column of its own stands there whole.
		await resize(1280, 3000);
	});

	test.each(VIEWS)(
		'axe-core finds nothing on %s, and what it leaves undecided on contrast stands out enough',
		async (view) => {
			await open(view);
			expect(await violationsOf(browser.driver)).toEqual([]);
			const contrasts = await weakContrasts(browser.driver);
			expect(contrasts.weak).toEqual([]);
			measured += contrasts.measured;
		}
	);

	test('contrasts were measured, and where one is too weak it is told', async () => {
		expect(measured).toBeGreaterThan(100);
		await open('/findings/{site}');
		await browser.driver.executeScript(
			`document.head.insertAdjacentHTML('beforeend', '<style>td a { color: var(--sea-wash) !important }</style>')`
		);
		expect((await weakContrasts(browser.driver)).weak.length).toBeGreaterThan(10);
	});
});

test.each(VIEWS)('nothing of %s needs sideways scrolling, down to a phone’s width', async (view) => {
	await resize(1280, 800);
	await open(view);
	// 640 is 1280 at 200 %.
	for (const width of [768, 640, 390]) {
		await resize(width, 800);
		await atRest(browser.driver);
		const over = await browser.driver.executeScript<number[]>(
			`const inside = [document.documentElement, ...document.querySelectorAll('main')].map((one) => one.scrollWidth - one.clientWidth);
			const charts = [...document.querySelectorAll('figure svg')].map((one) => one.clientWidth - one.closest('figure').clientWidth);
			return [...inside, ...charts];`
		);
		expect({ width, over: over.filter((one) => one > 0) }).toEqual({ width, over: [] });
	}
});
