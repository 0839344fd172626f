import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import axe from 'axe-core';
import { Builder, By, error, Key, until, type WebDriver, type WebElement } from 'selenium-webdriver';
import chrome from 'selenium-webdriver/chrome.js';
import { findChromium } from '../../scripts/chromium.mjs';

const root = fileURLToPath(new URL('../..', import.meta.url));

export interface RunningDemo {
	readonly kephalon: string;
	readonly website: string;
	readonly readers: string;
	readonly editor: string;
	readonly site: string;
	stop(): void;
}

/** Starts the built demo on free ports, with a database of its own in a folder that goes when it stops. */
export async function startDemo({
	few = true,
	people = false
}: { readonly few?: boolean; readonly people?: boolean } = {}): Promise<RunningDemo> {
	const folder = mkdtempSync(join(tmpdir(), 'kephalon-demo-'));
	const program = `
		process.env.KEPHALON_HOLD_ANSWERS = '1';
		process.env.KEPHALON_PARTS = '1';
		process.env.KEPHALON_THREAD = ${JSON.stringify(join(root, 'build/cli/thread.js'))};
		const { startDemo } = await import(${JSON.stringify(pathToFileURL(join(root, 'build/cli/demo.js')).href)});
		const demo = await startDemo({ folder: ${JSON.stringify(folder)}, port: 0, websitePort: 0, readersPort: 0, editorPort: 0, fresh: true, few: ${few}, people: ${people}, content: [${JSON.stringify(tmpdir())}], say: () => {} });
		console.log(JSON.stringify({ kephalon: demo.kephalon.address, website: demo.website.address, readers: demo.readers.address, editor: demo.editor.address, site: demo.site }));`;
	const child = spawn(process.execPath, ['--input-type=module', '-e', program], {
		cwd: root,
		stdio: ['ignore', 'pipe', 'inherit']
	});
	const addresses = JSON.parse(await firstLine(child)) as Omit<RunningDemo, 'stop'>;
	return {
		...addresses,
		stop() {
			child.kill();
			rmSync(folder, { recursive: true, force: true });
		}
	};
}

function firstLine(child: ChildProcess): Promise<string> {
	return new Promise((resolve, reject) => {
		let text = '';
		child.stdout?.on('data', (data: Buffer) => {
			text += data.toString();
			if (text.includes('\n')) resolve(text.slice(0, text.indexOf('\n')));
		});
		child.once('exit', (code) => reject(new Error(`The demo ended with code ${code} before it was ready.`)));
	});
}

/** A headless browser with a profile of its own; `quit` ends it and takes the profile away. */
export async function openBrowser(
	width = 1280,
	height = 800
): Promise<{ driver: WebDriver; quit: () => Promise<void> }> {
	const profile = mkdtempSync(join(tmpdir(), 'kephalon-browser-'));
	const options = new chrome.Options();
	const chromium = findChromium();
	if (!chromium) throw new Error('No chromium with its driver was found.');
	options.setChromeBinaryPath(chromium.browser);
	options.addArguments(
		...[
			'--headless=new',
			'--no-sandbox',
			'--disable-gpu',
			'--disable-quic',
			'--no-first-run',
			'--disable-background-networking'
		],
		...[
			'--disable-component-update',
			'--disable-sync',
			`--user-data-dir=${profile}`,
			`--window-size=${width},${height}`
		]
	);
	const driver = await new Builder()
		.forBrowser('chrome')
		.setChromeOptions(options)
		.setChromeService(new chrome.ServiceBuilder(chromium.driver))
		.build();
	const chromeHeight = Number(await driver.executeScript('return window.outerHeight - window.innerHeight'));
	await driver
		.manage()
		.window()
		.setRect({ width, height: height + chromeHeight });
	return {
		driver,
		async quit() {
			await driver.quit();
			rmSync(profile, { recursive: true, force: true, maxRetries: 5 });
		}
	};
}

/** Waits until the page has come to rest: nothing in it has changed for so many ms, and nothing moves. */
export async function atRest(driver: WebDriver, ms = 300): Promise<void> {
	await driver.executeAsyncScript(
		`const [ms, done] = arguments;
		const moves = () => document.getAnimations().some((one) => one.playState === 'running');
		let timer;
		const again = () => {
			clearTimeout(timer);
			timer = setTimeout(() => (moves() ? again() : (seen.disconnect(), done())), ms);
		};
		const seen = new MutationObserver(again);
		seen.observe(document, { subtree: true, childList: true, attributes: true, characterData: true });
		again();`,
		ms
	);
}

/** What axe-core finds on the page in view: each rule with the first element that breaks it. */
export async function violationsOf(driver: WebDriver): Promise<string[]> {
	await driver.executeScript(axe.source);
	const found = await driver.executeAsyncScript<{ id: string; nodes: { html: string }[] }[]>(
		'const done = arguments[arguments.length - 1]; axe.run().then((result) => done(result.violations));'
	);
	return found.map(({ id, nodes }) => `${id}: ${nodes[0]?.html}`);
}

/**
 * Types where the focus is. What has it may be replaced (a list that came) between being found and being typed into: the
 * driver refuses before any key was sent, so it is found once more, as fingers find it.
 */
export async function typeIn(driver: WebDriver, ...keys: string[]): Promise<void> {
	for (let tries = 0; ; tries++) {
		try {
			await driver
				.switchTo()
				.activeElement()
				.sendKeys(...keys);
			return;
		} catch (reason) {
			if (tries === 5 || !(reason instanceof error.StaleElementReferenceError)) throw reason;
		}
	}
}

/** The bench in a browser, moved as its user moves it. */
export class BenchPage {
	constructor(
		readonly driver: WebDriver,
		readonly demo: RunningDemo
	) {}

	async open(path: string) {
		await this.driver.get(
			`${this.demo.kephalon}/bench/${encodeURIComponent(this.demo.site)}?page=${encodeURIComponent(path)}`
		);
		// The comparison with the release comes from the browser's own code: then the bench is alive.
		await this.waitForText('[data-testid=pending]', /release/);
	}

	find(selector: string): Promise<WebElement> {
		return this.driver.wait(until.elementLocated(By.css(selector)), 10_000, `Nothing matches ${selector}`);
	}

	async textOf(selector: string): Promise<string> {
		return (await this.find(selector)).getText();
	}

	/** Waits until an element's text fits; gives the text. */
	async waitForText(selector: string, wanted: RegExp): Promise<string> {
		let seen = '';
		await this.driver
			.wait(
				async () => {
					seen = await this.driver
						.findElement(By.css(selector))
						.then((element) => element.getText())
						.catch(() => seen);
					return wanted.test(seen);
				},
				15_000,
				`${selector} never fitted ${wanted}`
			)
			.catch((error: Error) => {
				throw new Error(`${error.message} It said: ${seen}`);
			});
		return seen;
	}

	/** A layer's field, ready to be written in: its editor comes as one turns to it, and takes the place of what stood there. */
	async field(tag: string, layer: string): Promise<WebElement> {
		const selector = `[data-layer=${layer}] [aria-label="${tag} at ${layer}"]`;
		let found: WebElement | undefined;
		await this.driver.wait(
			async () => {
				const now = await this.driver.findElements(By.css(`${selector}:not(.plain)`));
				found = now[0];
				if (found) return true;
				const [plain] = await this.driver.findElements(By.css(selector));
				await plain?.click().catch(() => undefined);
				return false;
			},
			10_000,
			`Nothing matches ${selector}`
		);
		return found as WebElement;
	}

	/** Replaces what a layer's template field holds, key by key. */
	async write(tag: string, layer: string, template: string) {
		const field = await this.field(tag, layer);
		await field.click();
		await field.sendKeys(Key.chord(Key.CONTROL, 'a'), Key.DELETE, template);
	}

	/** Chooses among the options of a select by its label. */
	async choose(label: string, value: string) {
		await (await this.find(`[data-select][aria-label="${label}"]`)).click();
		await (await this.find(`[data-choice="${value}"]`)).click();
		await this.driver.wait(
			async () => (await this.driver.findElements(By.css('[data-choice]'))).length === 0,
			10_000,
			`The list of "${label}" never closed`
		);
	}

	/** Goes to a layer's field by its key, as often as it takes: a dialog that closes gives the focus back late. */
	async goTo(digit: string, label: string) {
		await this.driver.wait(
			async () => {
				await this.press(Key.ALT, digit);
				await atRest(this.driver);
				return (await this.driver.switchTo().activeElement().getAttribute('aria-label')) === label;
			},
			10_000,
			`The focus never came to "${label}"`
		);
	}

	/** Presses keys wherever the focus is: the last one with those before it held. */
	async press(...keys: string[]) {
		const actions = this.driver.actions();
		for (const key of keys.slice(0, -1)) actions.keyDown(key);
		actions.sendKeys(keys.at(-1) as string);
		for (const key of keys.slice(0, -1).reverse()) actions.keyUp(key);
		await actions.perform();
	}

	valueOf(tag: string): Promise<string> {
		return this.textOf(`[data-tag="${tag}"] .value`);
	}
}
