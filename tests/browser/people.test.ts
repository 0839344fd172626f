import { By, Key, until, type WebDriver } from 'selenium-webdriver';
import { Protocol, Transport, VirtualAuthenticatorOptions } from 'selenium-webdriver/lib/virtual_authenticator.js';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { BenchPage, openBrowser, startDemo, typeIn, violationsOf, type RunningDemo } from './demo';

/** From alone to together: a first owner, an editor with an area doing her day, a reviewer, a session that ends while typing. */
let demo: RunningDemo;
type Browser = Awaited<ReturnType<typeof openBrowser>>;
let [owner, editor] = [undefined, undefined] as unknown as [Browser, Browser];
const GOOD = 'seven slow gannets';

beforeAll(async () => {
	demo = await startDemo();
	[owner, editor] = await Promise.all([openBrowser(), openBrowser()]);
});
afterAll(async () => {
	await owner?.quit();
	await editor?.quit();
	demo?.stop();
});

const find = (driver: WebDriver, css: string) =>
	driver.wait(until.elementLocated(By.css(css)), 15_000, `Nothing matches ${css}`);
const says = (driver: WebDriver, css: string, wanted: RegExp) =>
	driver.wait(
		async () =>
			wanted.test(
				await driver
					.findElement(By.css(css))
					.then((one) => one.getText())
					.catch(() => '')
			),
		15_000,
		`${css} never said ${wanted}`
	);
const go = (driver: WebDriver, path: string) =>
	driver.get(demo.kephalon + path.replace('{site}', encodeURIComponent(demo.site)));
const field = async (driver: WebDriver, label: string, text: string) => {
	const input = await driver.wait(
		() =>
			driver.executeScript<import('selenium-webdriver').WebElement | null>(
				`return [...document.querySelectorAll('label')].find((one) => one.checkVisibility() && one.textContent.trim().startsWith(arguments[0]))?.querySelector('input, [data-select]') ?? null`,
				label
			),
		10_000,
		`There is no field “${label}”`
	);
	if ((await input!.getAttribute('data-select')) !== null) {
		await input!.click();
		return driver.wait(until.elementLocated(By.css(`[data-choice="${text}"]`)), 10_000).click();
	}
	await input!.clear().catch(() => undefined);
	await input!.sendKeys(text);
};
const press = (driver: WebDriver, name: string) =>
	driver.wait(
		() =>
			driver.executeScript<boolean>(
				`const button = [...document.querySelectorAll('button, a[data-button=plain]')].find((one) => one.checkVisibility() && one.innerText.trim() === arguments[0]); button?.click(); return button !== undefined`,
				name
			),
		10_000,
		`There is no button “${name}”`
	);
const invitation = async (driver: WebDriver) =>
	(await (await find(driver, '[data-testid=invitation]')).getText()).trim();
const take = async (driver: WebDriver, link: string) => {
	await driver.get(link);
	await says(driver, 'main', /Welcome/);
	expect(await driver.getCurrentUrl()).not.toContain('#');
	await field(driver, 'New password', GOOD);
	await field(driver, 'The same again', GOOD);
	await press(driver, 'Come in');
};

test('alone, one adds the first person, who owns every site; from then on everybody signs in', async () => {
	const { driver } = owner;
	await go(driver, '/people');
	await says(driver, 'main', /There is nobody/);
	expect(await violationsOf(driver)).toEqual([]);
	await field(driver, 'A new person’s name', 'Ada Marrow');
	await press(driver, 'Invite');
	// There is somebody now: she is not in herself before she has taken it.
	const link = await invitation(driver);
	expect(link).toMatch(/\/invited#[\w-]{43}$/);
	await go(editor.driver, '/bench/{site}');
	await says(editor.driver, 'main', /Sign in/);
	expect(await violationsOf(editor.driver)).toEqual([]);
	await take(driver, link);
	await says(driver, 'nav.rooms', /Ada Marrow/);
	await driver.get(link);
	await says(driver, 'main', /was taken or is over/);
});

test('an editor with an area changes its pages, and is told who may change others', async () => {
	const { driver } = owner;
	await go(driver, '/people');
	await field(driver, 'A new person’s name', 'Ben Holt');
	await press(driver, 'Invite');
	const link = await invitation(driver);
	await says(driver, '[data-person="Ben Holt"]', /nothing yet/);
	await (await find(driver, '[data-person="Ben Holt"] button')).click();
	await field(driver, 'Paths', '/walks/*');
	expect(await violationsOf(driver)).toEqual([]);
	await press(driver, 'Give it');
	await says(driver, '[data-person="Ben Holt"]', /editor of .+, only paths \/walks\/\*/);

	await take(editor.driver, link);
	await says(editor.driver, 'nav.rooms', /Ben Holt/);
	const bench = new BenchPage(editor.driver, demo);
	await bench.open('/walks/dusk-on-ember-heath');
	await bench.write('title', 'page', 'Dusk, by Ben');
	await bench.waitForText('[data-testid=saved]', /^All kept/);
	await bench.open('/about');
	await bench.write('title', 'page', 'About, by Ben');
	await bench.waitForText('[data-layer=page] [data-testid=refused]', /beyond your area.+Ada Marrow \(owner\) may\./);
	await (await bench.find('[data-layer=page] [data-testid=reach] [data-button=plain]')).click();
	await go(editor.driver, '/people');
	await says(editor.driver, 'main', /no such site, or it is not open to you/);
});

test('a session that ends while one types takes nothing away', async () => {
	const bench = new BenchPage(editor.driver, demo);
	await bench.open('/walks/gannets-by-boat');
	// Ended elsewhere: by whoever resets a password, or by time.
	const [cookie] = await editor.driver.manage().getCookies();
	await editor.driver.manage().deleteAllCookies();
	expect(cookie!.httpOnly).toBe(true);
	await bench.write('description', 'page', 'Written while the session ended').catch(() => undefined);
	await (await bench.find('[data-tag=description]')).click();
	await bench.write('description', 'page', 'Written while the session ended');
	await bench.waitForText('[role=dialog]', /You are signed out/);
	expect(await violationsOf(editor.driver)).toEqual([]);
	await field(editor.driver, 'Password', 'not the right one');
	await press(editor.driver, 'Sign in');
	await bench.waitForText('[role=dialog]', /The name or the password is not right/);
	await field(editor.driver, 'Password', GOOD);
	await press(editor.driver, 'Sign in');
	await editor.driver.wait(
		async () => (await editor.driver.findElements(By.css('[role=dialog]'))).length === 0,
		10_000
	);
	await bench.waitForText('[data-testid=saved]', /^All kept/);
	expect(await bench.valueOf('description')).toContain('Written while the session ended');
});

test('a device signs in with a passkey, until that is taken away', async () => {
	const { driver } = editor;
	const device = new VirtualAuthenticatorOptions();
	device.setProtocol(Protocol.CTAP2);
	device.setTransport(Transport.INTERNAL);
	device.setHasResidentKey(true);
	device.setHasUserVerification(true);
	device.setIsUserVerified(true);
	await (driver as unknown as { addVirtualAuthenticator(device: object): Promise<void> }).addVirtualAuthenticator(
		device
	);
	// An address has no name that a passkey could be bound to.
	await go(driver, '/account');
	await says(driver, 'main', /Passkeys are bound to a name/);
	const named = demo.kephalon.replace('127.0.0.1', 'localhost');
	await driver.get(`${named}/sign-in`);
	await field(driver, 'Name', 'Ben Holt');
	await field(driver, 'Password', GOOD);
	await press(driver, 'Sign in');
	await says(driver, 'nav.rooms', /Ben Holt/);
	await driver.get(`${named}/account`);
	await says(driver, 'main', /None yet\. With one/);
	await field(driver, 'Name of a new passkey', 'My desk');
	await press(driver, 'Make one on this device');
	await says(driver, 'main', /My desk\s+since .+, not used yet/);
	expect(await violationsOf(driver)).toEqual([]);
	await press(driver, 'Sign out');
	await says(driver, 'main', /Sign in/);
	await press(driver, 'With a passkey');
	await says(driver, 'nav.rooms', /Ben Holt/);
	await driver.get(`${named}/account`);
	await says(driver, 'main', /My desk\s+since .+, used last/);
	await (await find(driver, '[aria-label="Take away My desk"]')).click();
	await says(driver, 'main', /None yet\. With one/);
	await press(driver, 'Sign out');
	await says(driver, 'main', /Sign in/);
	await press(driver, 'With a passkey');
	await says(driver, '[role=alert]', /This passkey does not open anything here/);
	await go(driver, '/sign-in');
});

test('one is signed in where one says, and the trail says what was done', async () => {
	await go(editor.driver, '/account');
	await says(editor.driver, 'main', /editor of/);
	expect(await violationsOf(editor.driver)).toEqual([]);
	await press(editor.driver, 'End all others');
	await says(editor.driver, '[role=status]', /All other sessions have ended/);
	await field(editor.driver, 'Old password', GOOD);
	await field(editor.driver, 'New password', 'nine quick herons');
	await field(editor.driver, 'The same again', 'nine quick herons');
	await press(editor.driver, 'Change it');
	await says(editor.driver, '[role=status]', /The password is changed/);
	await press(editor.driver, 'Sign out');
	await says(editor.driver, 'main', /Sign in/);
	await go(owner.driver, '/people');
	await says(owner.driver, 'ol', /Ben Holt signed out[^]*Ben Holt changed their password[^]*Ada Marrow gave a role:/);
});

test('a reviewer reads all and releases; what they may not do they are told, with who may', async () => {
	const { driver } = owner;
	await go(driver, '/people');
	await field(driver, 'A new person’s name', 'Rika Brandt');
	await press(driver, 'Invite');
	const link = await invitation(driver);
	await says(driver, '[data-person="Rika Brandt"]', /nothing yet/);
	await (await find(driver, '[data-person="Rika Brandt"] button')).click();
	await field(driver, 'Role', 'reviewer');
	await press(driver, 'Give it');
	await says(driver, '[data-person="Rika Brandt"]', /reviewer of /);

	await editor.driver.manage().deleteAllCookies();
	await take(editor.driver, link);
	await says(editor.driver, 'nav.rooms', /Rika Brandt/);
	const bench = new BenchPage(editor.driver, demo);
	await bench.open('/walks/dusk-on-ember-heath');
	await bench.write('title', 'page', 'By the reviewer');
	await bench.waitForText('[data-layer=page] [data-testid=refused]', /You may not change pages at .+ may\./);
	await (await bench.find('[data-layer=page] [data-testid=reach] [data-button=plain]')).click();
	// What the editor wrote goes out.
	await bench.waitForText('[data-testid=pending]', /differs? from release/);
	await editor.driver.executeScript(
		`[...document.querySelectorAll('button[data-button=main]')].find((one) => one.innerText === 'Release').click()`
	);
	await bench.waitForText('[data-testid=pending]', /All as in release/);
	await go(driver, '/releases/{site}');
	await says(driver, 'main', /, Rika Brandt/);
	await go(editor.driver, '/releases/{site}');
	await says(editor.driver, 'main', /, you/);
});

test('a private site goes to a key and to its people, and to nobody else', async () => {
	const { driver } = owner;
	const head = `${demo.kephalon}/api/sites/${encodeURIComponent(demo.site)}/head?path=/about`;
	const asked = (headers: Record<string, string> = {}) => fetch(head, { headers }).then(({ status }) => status);
	expect(await asked()).toBe(200);
	const bench = new BenchPage(driver, demo);
	await bench.open('/about');
	await (await bench.find('[data-layer=site] button.name')).click();
	await driver.wait(
		() =>
			driver.executeScript<boolean>(
				`const box = [...document.querySelectorAll('.setting')].find((one) => one.innerText.startsWith('Private'))?.querySelector('input'); box?.click(); return !!box`
			),
		10_000,
		'There is no setting “Private”'
	);
	// Every head changes: the reach is told before.
	await bench.waitForText('[data-testid=saved]', /1 edit waits to be kept/);
	expect(await asked()).toBe(200);
	await bench.waitForText('[data-testid=reach]', /\d+ pages would change/);
	await (await bench.find('[data-testid=reach] [data-button=main]')).click();
	await bench.waitForText('[data-testid=saved]', /^All kept/);
	expect(await asked()).toBe(401);
	await bench.waitForText('[data-tag=robots] .value', /^noindex/);

	await go(driver, '/people');
	await field(driver, 'A new key’s name', 'front end');
	await press(driver, 'Make a key');
	const key = (await (await find(driver, '[data-testid=key]')).getText()).trim();
	expect(key).toMatch(/^kephalon_[\w-]{43}$/);
	await says(driver, '[data-key="front end"]', /may read heads; without an end; never used; made by Ada Marrow/);
	expect(await violationsOf(driver)).toEqual([]);
	expect(await asked({ authorization: `Bearer ${key}` })).toBe(200);
	await press(driver, 'I have it');
	await (await find(driver, '[data-key="front end"] button:last-of-type')).click();
	await says(driver, '#keys ~ ul', /No program has a key yet/);
	expect(await asked({ authorization: `Bearer ${key}` })).toBe(401);
	const session = (await driver.manage().getCookies()).find(({ name }) => name === 'kephalon');
	expect(await asked({ cookie: `kephalon=${session!.value}` })).toBe(200);
});

test('a recovery code lets one in again, for a new password, once', async () => {
	const { driver } = editor;
	await go(driver, '/account');
	await field(driver, 'Your password, for new codes', GOOD);
	await press(driver, 'Make ten codes');
	const codes = (await (await find(driver, '[data-testid=codes]')).getText()).trim().split(/\s+/);
	expect(codes).toHaveLength(10);
	expect(await violationsOf(driver)).toEqual([]);
	await press(driver, 'I have them');
	await says(driver, 'main', /10 are left/);
	await press(driver, 'Sign out');
	await says(driver, 'main', /Sign in/);
	await press(driver, 'With a recovery code');
	await field(driver, 'Name', 'Rika Brandt');
	await field(driver, 'Recovery code', codes[3]!);
	expect(await violationsOf(driver)).toEqual([]);
	await press(driver, 'Choose a new password');
	await says(driver, 'main', /Welcome/);
	await field(driver, 'New password', 'nine quick herons');
	await field(driver, 'The same again', 'nine quick herons');
	await press(driver, 'Come in');
	await says(driver, 'nav.rooms', /Rika Brandt/);
	await go(driver, '/account');
	await says(driver, 'main', /9 are left/);
});

test('locked out, nobody comes in', async () => {
	await go(owner.driver, '/people');
	await press(owner.driver, 'No owner of all any more');
	await says(owner.driver, '[role=alert]', /Ada Marrow is the last who owns every site/);
	await owner.driver.executeScript(
		`[...document.querySelectorAll('[data-person="Ben Holt"] button')].find((one) => one.innerText === 'Lock out').click()`
	);
	await says(owner.driver, '[data-person="Ben Holt"]', /locked out/);
	await editor.driver.manage().deleteAllCookies();
	await go(editor.driver, '/sign-in');
	await field(editor.driver, 'Name', 'Ben Holt');
	await field(editor.driver, 'Password', 'nine quick herons');
	await typeIn(editor.driver, Key.ENTER);
	await says(editor.driver, '[role=alert]', /The name or the password is not right/);
});
