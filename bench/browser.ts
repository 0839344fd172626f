import { Key, type WebElement } from 'selenium-webdriver';
import { BenchPage, openBrowser, startDemo } from '../tests/browser/demo';

/**
 * The bench in the browser, on the demo site: the scripts of its first load, and the time from a key that goes down in a
 * template to the task after the frame that shows the cards, against a bare text field in the same page.
 */
const WORDS = ' and how to get to it by the coast path in winter, with times';
/** Milliseconds between two keys. */
const PACE = 60;
/** The machine is shared: so many loads are measured. */
const LOADS = 5;

const demo = await startDemo();
const { driver, quit } = await openBrowser();
const bench = new BenchPage(driver, demo);

const MEASURE = `window.times = []; addEventListener('keydown', () => {
	const at = performance.now();
	requestAnimationFrame(() => {
		const { port1, port2 } = new MessageChannel();
		port1.onmessage = () => window.times.push(performance.now() - at);
		port2.postMessage(0);
	});
}, true);`;

async function type(field: WebElement): Promise<{ median: number; worst: number }> {
	await driver.executeScript('window.times = []');
	for (const sign of WORDS) {
		await field.sendKeys(sign);
		await driver.sleep(PACE);
	}
	const times = (await driver.executeScript<number[]>('return window.times')).sort((a, b) => a - b);
	return { median: times[times.length >> 1] as number, worst: times[Math.floor(times.length * 0.95)] as number };
}

/** A sentence into the page as it was just loaded, another after it, and one into a bare field. */
async function load() {
	await bench.open('/reserves/ember-heath');
	await driver.sleep(1500);
	const field = await bench.field('title', 'type');
	await field.sendKeys(Key.END);
	await driver.executeScript(MEASURE);
	const [first, then] = [await type(field), await type(field)];
	await field.sendKeys(Key.ESCAPE);
	await driver.executeScript(`document.body.insertAdjacentHTML('afterbegin', '<textarea id="bare"></textarea>')`);
	return { first, then, bare: await type(await bench.find('#bare')) };
}

/** Words typed in an editor of another site, with the panel beside it: from the key to the editor's being told that the card shows them. */
async function inPanel(): Promise<number[]> {
	const editor = demo.editor.replace('127.0.0.1', 'localhost');
	await fetch(`${demo.kephalon}/api/v1/sites/${encodeURIComponent(demo.site)}/panel`, {
		method: 'PUT',
		headers: { 'content-type': 'application/json' },
		body: JSON.stringify({ origins: [editor] })
	});
	await driver.get(`${editor}/?page=/reserves/ember-heath`);
	await driver.executeAsyncScript(
		`document.querySelector('kephalon-panel').addEventListener('kephalon-shown', arguments[0], { once: true })`
	);
	await driver.sleep(1500);
	await driver.executeScript(`window.times = [];
		addEventListener('keydown', () => (window.at ??= performance.now()), true);
		document.querySelector('kephalon-panel').addEventListener('kephalon-shown', () => {
			if (window.at !== undefined) window.times.push(performance.now() - window.at);
			window.at = undefined;
		});`);
	const { median, worst } = await type(await bench.find('form [name=title]'));
	return [median, worst];
}

try {
	await bench.open('/reserves/ember-heath');
	await driver.sleep(1500);
	const bytes = await driver.executeScript<number>(
		`return performance.getEntriesByType('resource').filter(({ name }) => name.endsWith('.js')).reduce((sum, { transferSize }) => sum + transferSize, 0)`
	);
	console.log(`first load of the bench: scripts of ${Math.round(bytes / 1000)} kB as transferred (at most 170)`);
	const loads: Awaited<ReturnType<typeof load>>[] = [];
	for (let at = 0; at < LOADS; at++) loads.push(await load());
	const show = (ms: number) => ms.toFixed(1);
	const told = (which: 'first' | 'then' | 'bare') => {
		const worst = loads.map((one) => one[which].worst).sort((a, b) => a - b);
		const median = loads.map((one) => one[which].median).sort((a, b) => a - b);
		return `median ${show(median[LOADS >> 1] as number)} ms, 95th percentile ${show(worst[LOADS >> 1] as number)} ms (${worst.map(show).join(', ')})`;
	};
	console.log(
		`a key in a template until the cards are painted, the middle of ${LOADS} loads (95th percentile: at most 16)`
	);
	console.log(`  the first sentence after loading: ${told('first')}`);
	console.log(`  the one after it:                 ${told('then')}`);
	console.log(`  a bare text field in the same page: ${told('bare')}`);
	const panels: number[][] = [];
	for (let at = 0; at < LOADS; at++) panels.push(await inPanel());
	const [medians, worsts] = [0, 1].map((which) => panels.map((one) => one[which]!).sort((a, b) => a - b)) as [
		number[],
		number[]
	];
	console.log(
		`a key in an editor of another site until its page knows that the panel's card is painted: median ${show(medians[LOADS >> 1]!)} ms, 95th percentile ${show(worsts[LOADS >> 1]!)} ms (${worsts.map(show).join(', ')}; at most 50)`
	);
} finally {
	await quit();
	demo.stop();
}
