/** Where the browser of the tests and its driver are. */
import { accessSync, constants } from 'node:fs';
import { delimiter, join } from 'node:path';

const BROWSERS = ['chromium', 'chromium-browser', 'google-chrome', 'chrome.exe'];
const DRIVERS = ['chromedriver', 'chromedriver.exe'];

/**
 * The browser and the driver on the path, or where `CHROMIUM` and `CHROMEDRIVER` say; undefined where one of them is missing.
 * @returns {{ browser: string, driver: string } | undefined}
 */
export function findChromium() {
	const browser = process.env.CHROMIUM ?? onPath(BROWSERS);
	const driver = process.env.CHROMEDRIVER ?? onPath(DRIVERS);
	return browser && driver ? { browser, driver } : undefined;
}

/** The first of some programs that stands in a folder of the path. */
function onPath(/** @type {string[]} */ names) {
	const folders = (process.env.PATH ?? '').split(delimiter).filter(Boolean);
	return names.flatMap((name) => folders.map((folder) => join(folder, name))).find(canRun);
}

function canRun(/** @type {string} */ file) {
	try {
		accessSync(file, constants.X_OK);
		return true;
	} catch {
		return false;
	}
}
