import { readFileSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { By, Key, type WebDriver } from 'selenium-webdriver';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { atRest, openBrowser, startDemo, violationsOf, type RunningDemo } from './demo';

/** The panel beside a made-up editor: what is typed there, what is written in it, who lets it in, and who may show it. */
let demo: RunningDemo;
let driver: WebDriver;
let quit: () => Promise<void>;

const frame = async () => {
	await driver.switchTo().defaultContent();
	const element = await driver.wait(async () => {
		const root = await driver.executeScript<boolean>(
			`return document.querySelector('kephalon-panel')?.shadowRoot?.querySelector('iframe') !== undefined`
		);
		return root
			? driver.executeScript(`return document.querySelector('kephalon-panel').shadowRoot.querySelector('iframe')`)
			: undefined;
	}, 20_000);
	await driver.switchTo().frame(element as never);
};
const inPanel = async <T>(work: () => Promise<T>): Promise<T> => {
	await frame();
	try {
		return await work();
	} finally {
		await driver.switchTo().defaultContent();
	}
};
const text = (css: string) => inPanel(() => driver.findElement(By.css(css)).getText());
const comes = (css: string, is: (said: string) => boolean, ms = 20_000) =>
	inPanel(() =>
		driver.wait(
			async () => {
				const [one] = await driver.findElements(By.css(css));
				return one !== undefined && is(await one.getText().catch(() => ''));
			},
			ms,
			`${css} in the panel`
		)
	);
const openEditor = async (page: string) => {
	await driver.switchTo().defaultContent();
	await driver.get(`${demo.editor}/?page=${encodeURIComponent(page)}`);
	await comes('[data-testid=panel-state]', (said) => said !== '');
};
const writeIn = async (name: string, words: string) => {
	const field = await driver.findElement(By.css(`form [name=${name}]`));
	await field.clear();
	await field.sendKeys(words);
};
const pageNow = async (path: string) =>
	(await (await fetch(`${demo.kephalon}/api/v1/sites/${encodeURIComponent(demo.site)}/page?path=${path}`)).json()) as {
		page: { fields: Record<string, unknown>; rules: { tag: string; template?: string }[] };
	};
/** A click takes the focus into the frame, which keys sent to an element of it do not. */
const writeOwn = (tag: string, words: string) =>
	inPanel(async () => {
		await driver.findElement(By.css(`[data-line="${tag}"] > button`)).click();
		// What stands there first becomes an editor as one turns to it.
		await driver.findElement(By.css('.cm-content')).click();
		const editor = await driver.wait(
			async () => (await driver.findElements(By.css('.cm-content:not(.plain)')))[0],
			15_000
		);
		await editor!.click();
		await driver.actions().sendKeys(words).perform();
	});
const title = '[aria-label="Its card"] .title';

describe('with nobody to sign in', () => {
	beforeAll(async () => {
		demo = await startDemo();
		({ driver, quit } = await openBrowser());
	}, 120_000);
	afterAll(async () => {
		await quit?.();
		demo?.stop();
	});

	test('the card follows what is typed, before anything is saved', async () => {
		await openEditor('/reserves/ember-heath');
		const before = await text(title);
		expect(await text('[data-testid=panel-state]')).toMatch(/^As it is kept/);
		await writeIn('title', 'Adders under the heather');
		await comes(title, (said) => said.startsWith('Adders under the heather'));
		expect(await text('[data-testid=panel-state]')).toMatch(/^As typed/);
		expect((await pageNow('/reserves/ember-heath')).page.fields.title).toBe('Ember Heath');
		// Taken back by hand, it is as it was.
		await writeIn('title', 'Ember Heath');
		await comes(title, (said) => said === before);
		expect(await text('[data-testid=panel-state]')).toMatch(/^As it is kept/);
	});

	test('saved, it is what is kept', async () => {
		await openEditor('/reserves/ember-heath');
		await writeIn('summary', 'Adders, nightjars and one good path, open all year round from the car park.');
		await driver.findElement(By.css('form button')).click();
		await comes('[data-testid=panel-state]', (said) =>
			/^As it is kept, \d tags? differ|^As it is kept, one tag differs/.test(said)
		);
		expect((await pageNow('/reserves/ember-heath')).page.fields.summary).toMatch(/^Adders, nightjars/);
	});

	test('what is written in it is kept at the page, and told to the editor', async () => {
		await openEditor('/reserves/long-strand');
		await driver.executeScript(
			`window.kept = 0; document.querySelector('kephalon-panel').addEventListener('kephalon-kept', () => window.kept++)`
		);
		await writeOwn('og:title', 'Nine miles of sand');
		await comes(title, (said) => said === 'Nine miles of sand');
		await driver.wait(() => driver.executeScript('return window.kept > 0'), 15_000);
		expect((await pageNow('/reserves/long-strand')).page.rules).toContainEqual(
			expect.objectContaining({ tag: 'og:title', template: 'Nine miles of sand' })
		);
		expect(await text('[data-line="og:title"] > button')).toContain('this page’s own');
		// What is typed in the editor now goes to search alone.
		await writeIn('title', 'The long sand');
		await comes('[data-line="title"] > button', (said) => said.includes('The long sand'));
		expect(await text(title)).toBe('Nine miles of sand');
	});

	test('a field that was written in Kephalon is not what is typed here, and that is said', async () => {
		const path = '/reserves/gannet-head';
		const { page } = await pageNow(path);
		const changes = { fields: { ...page.fields, title: 'Written here' }, held: ['title'] };
		const answer = await fetch(`${demo.kephalon}/api/v1/sites/${encodeURIComponent(demo.site)}/settings`, {
			method: 'PATCH',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify({ place: { layer: 'page', path }, changes })
		});
		expect(answer.status).toBe(200);
		await openEditor(path);
		await comes('[data-line="title"] > button', (said) => said.includes('Written here'));
		await writeIn('title', 'Typed there');
		await comes('[data-testid=panel-held]', (said) => said.endsWith('title.'));
		expect(await text('[data-line="title"] > button')).toContain('Written here');
	});

	test('another page, one that is not there yet, and one that is nowhere', async () => {
		await openEditor('/visit');
		const goTo = (attributes: Record<string, string>) =>
			driver.executeScript(
				`const panel = document.querySelector('kephalon-panel'); for (const [name, value] of Object.entries(arguments[0])) panel.setAttribute(name, value)`,
				attributes
			);
		await goTo({ page: '/about' });
		await comes('article .font-mono', (said) => said === '/about');
		await goTo({ type: 'reserve', page: '/reserves/new-marsh' });
		await comes('[data-testid=panel-state]', (said) => /no such page yet/.test(said));
		await writeIn('title', 'The new marsh');
		await comes(title, (said) => said.includes('The new marsh'));
		await inPanel(async () => {
			await driver.findElement(By.css('[data-line="title"] > button')).click();
			expect(await driver.findElements(By.css('.cm-content'))).toHaveLength(0);
		});
		await goTo({ type: 'none', page: '/reserves/nowhere' });
		await comes('[role=alert]', (said) => said.includes('/reserves/nowhere'));
		expect(await inPanel(() => driver.findElements(By.css('article')))).toHaveLength(0);
	});

	test.each([320, 400, 480])('at %d pixels nothing is cut, and every thing has its name', async (width) => {
		await openEditor('/reserves/saltholm-marsh');
		await driver.executeScript(
			`document.querySelector('kephalon-panel').style.width = '${width}px'; document.querySelector('aside').style.width = '${width}px'`
		);
		await inPanel(async () => {
			await driver.findElement(By.css('[data-line="description"] > button')).click();
			await driver.wait(async () => (await driver.findElements(By.css('.cm-content')))[0] !== undefined, 15_000);
			await driver.findElement(By.css('[data-disclosure="All other readers"] > button')).click();
			await driver.findElement(By.css('[data-disclosure="All other tags"] > button')).click();
			await atRest(driver);
			const [wide, inner] = await driver.executeScript<[number, number]>(
				'return [document.documentElement.scrollWidth, innerWidth]'
			);
			expect(inner).toBe(width);
			expect(wide).toBeLessThanOrEqual(inner);
			expect(await violationsOf(driver)).toEqual([]);
		});
	});

	test('all of it by keys', async () => {
		await openEditor('/reserves/hollin-wood');
		await inPanel(async () => {
			await driver.executeScript(`document.querySelector('[data-line="description"] > button').focus()`);
			await driver.actions().sendKeys(Key.ENTER).perform();
			await driver.wait(async () => (await driver.findElements(By.css('.cm-content')))[0] !== undefined, 15_000);
			for (let at = 0; at < 12; at++) {
				await driver.actions().sendKeys(Key.TAB).perform();
				if (await driver.executeScript(`return document.activeElement.matches('.cm-content')`)) break;
			}
			await driver.actions().sendKeys('Oak, ash and holly, by keys alone and with no pointer at all').perform();
		});
		await comes('[data-line="description"] > button', (said) => said.includes('Oak, ash and holly'));
	});

	test('the example for a plain form works as it stands', async () => {
		const html = readFileSync(new URL('../../deploy/panel-form.html', import.meta.url), 'utf8')
			.replaceAll('https://kephalon.example', demo.kephalon)
			.replace(
				'site="Docs" page="/boats/7" type="boat"',
				`site="${demo.site}" page="/reserves/tern-bay" type="reserve"`
			);
		const server = createServer((request, response) =>
			request.url === '/panel-token'
				? void response.writeHead(204).end()
				: void response.writeHead(200, { 'content-type': 'text/html' }).end(html)
		).listen(0, '127.0.0.1');
		await new Promise((done) => server.once('listening', done));
		const origin = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
		const named = await fetch(`${demo.kephalon}/api/v1/sites/${encodeURIComponent(demo.site)}/panel`, {
			method: 'PUT',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify({ origins: [origin, demo.editor] })
		});
		expect(((await named.json()) as { origins: string[] }).origins).toContain(origin);
		try {
			await driver.get(origin);
			await comes(title, (said) => said.includes('Tern'));
			await writeIn('title', 'Avocet');
			await comes(title, (said) => said.includes('Avocet'));
			await comes('[data-line="description"] > button', (said) => said.includes('A day boat for two.'));
		} finally {
			server.closeAllConnections();
			server.close();
		}
	});

	test('pages of an origin that nobody named do not show it, and say why', async () => {
		await driver.switchTo().defaultContent();
		await driver.get(`${demo.website}/visit`);
		await driver.executeScript(
			`const script = document.createElement('script');
			script.type = 'module';
			script.src = arguments[0] + '/panel.js';
			document.head.append(script);
			document.body.insertAdjacentHTML('afterbegin', '<kephalon-panel site="' + arguments[1] + '" page="/visit"></kephalon-panel>')`,
			demo.kephalon,
			demo.site
		);
		await driver.wait(
			() =>
				driver.executeScript<boolean>(
					`return document.querySelector('kephalon-panel').shadowRoot?.querySelector('[role=alert]')?.textContent.includes('does not let pages of ' + location.origin) ?? false`
				),
			30_000
		);
	});

	test('by itself it shows nothing of a page', async () => {
		await driver.get(`${demo.kephalon}/panel/${encodeURIComponent(demo.site)}?host=${encodeURIComponent(demo.editor)}`);
		await driver.sleep(1000);
		expect(await driver.findElements(By.css('article'))).toHaveLength(0);
		const other = await fetch(`${demo.kephalon}/panel/${encodeURIComponent(demo.site)}?host=https://evil.example`);
		expect(other.headers.get('content-security-policy')).toContain("frame-ancestors 'none'");
		const bench = await fetch(
			`${demo.kephalon}/bench/${encodeURIComponent(demo.site)}?host=${encodeURIComponent(demo.editor)}`
		);
		expect(bench.headers.get('content-security-policy')).toContain("frame-ancestors 'none'");
	});
});

describe('with people', () => {
	beforeAll(async () => {
		demo = await startDemo({ people: true });
		({ driver, quit } = await openBrowser());
	}, 120_000);
	afterAll(async () => {
		await quit?.();
		demo?.stop();
	});

	test('the editor’s server lets its person in, at the pages of their area; no key is in the page', async () => {
		await openEditor('/walks/low-tide-for-beginners');
		await writeOwn('og:title', 'Seals, from far enough away');
		await comes(title, (said) => said === 'Seals, from far enough away');
		await comes('[data-testid=panel-state]', (said) => /differ/.test(said));
		const html = await driver.getPageSource();
		expect(html).not.toMatch(/kephalon_/);
		await openEditor('/visit');
		await inPanel(async () => {
			await driver.findElement(By.css('[data-line="title"] > button')).click();
			expect(await driver.findElement(By.css('[data-line="title"]')).getText()).toContain('who may edit this page');
		});
	});

	test('what was written is kept though the editor turns to another page at once', async () => {
		const session = await fetch(`${demo.kephalon}/api/v1/session`, {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify({ name: 'Ada Marrow', password: 'seven slow gannets' })
		});
		const cookie = session.headers.get('set-cookie')!.split(';', 1)[0]!;
		const kept = async () => {
			const page = `${demo.kephalon}/api/v1/sites/${encodeURIComponent(demo.site)}/page?path=/walks/gannets-by-boat`;
			return (await fetch(page, { headers: { cookie } })).text();
		};
		await openEditor('/walks/gannets-by-boat');
		await writeOwn('og:title', 'Gannets, closer than you think');
		await driver.executeScript(
			`document.querySelector('kephalon-panel').setAttribute('page', '/walks/low-tide-for-beginners')`
		);
		await comes('article .font-mono', (said) => said === '/walks/low-tide-for-beginners');
		await expect.poll(kept, { timeout: 15_000 }).toContain('Gannets, closer than you think');
	});

	test('where nothing lets it in, one signs in by a window, and the window closes', async () => {
		await driver.switchTo().defaultContent();
		await driver.get(`${demo.editor}/?page=/visit`);
		await driver.executeScript(`
			const old = document.querySelector('kephalon-panel');
			const panel = document.createElement('kephalon-panel');
			panel.setAttribute('site', old.getAttribute('site'));
			panel.setAttribute('page', '/visit');
			old.replaceWith(panel);`);
		await inPanel(async () => {
			const button = await driver.wait(
				async () => (await driver.findElements(By.css('[data-button=main]')))[0],
				20_000
			);
			expect(await button!.getText()).toBe('Sign in');
			await button!.click();
		});
		const [own] = await driver.getAllWindowHandles();
		await driver.wait(async () => (await driver.getAllWindowHandles()).length === 2, 10_000);
		const other = (await driver.getAllWindowHandles()).find((one) => one !== own)!;
		await driver.switchTo().window(other);
		const name = await driver.wait(
			async () => (await driver.findElements(By.css('input[autocomplete^=username]')))[0],
			15_000
		);
		await name!.sendKeys('Ada Marrow');
		await driver.findElement(By.css('input[type=password]')).sendKeys('seven slow gannets', Key.ENTER);
		await driver.wait(async () => (await driver.getAllWindowHandles()).length === 1, 20_000);
		await driver.switchTo().window(own!);
		await comes('[data-testid=panel-state]', (said) => said !== '');
		await inPanel(async () => {
			await driver.findElement(By.css('[data-line="title"] > button')).click();
			await driver.wait(async () => (await driver.findElements(By.css('.cm-content')))[0] !== undefined, 15_000);
		});
	});
});
