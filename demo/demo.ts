import { readFile, rm } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { listen, serve } from '../src/cli/serve';
import { explain } from '$server/store/opening/database';
import { refuse, UserError } from '$server/errors';
import type { Page, Picture } from '$core';
import { addKey } from '$server/people/keys';
import { setOrigins } from '$server/people/panel';
import { Library } from '$server/pictures/library';
import { refreshAll } from '$server/jobs/parts';
import { runJob } from '$server/jobs/run';
import { saveSiteFile } from '$server/siteFile/siteFile';
import { Store } from '$server/store/store';
import { keepRule } from '$server/edits/rules';
import { keepSettings, readSettingsEdit } from '$server/edits/settings';
import { demoSite, wholeDemoSite } from './content';
import { drawPictures, type DrawnPicture } from './draw';
import { ROUNDS } from './more';
import { DEMO_EDITOR, DEMO_PASSWORD, DEMO_PEOPLE, letIn } from './people';
import { editorHandler } from './editor';
import { readersHandler, ReadersService } from './readers';
import { websiteHandler } from './website';

/** Starts the demo: Kephalon on a database with the demo site, and the stand-in website that serves its pages. */
export interface DemoOptions {
	/** The folder for the database and the pictures. */
	readonly folder: string;
	readonly port: number;
	readonly websitePort: number;
	readonly readersPort: number;
	readonly editorPort: number;
	/** Only the pages that the browser tests tell by their numbers, and one release. */
	readonly few?: boolean;
	/** Start over with a new database. */
	readonly fresh: boolean;
	/** With people who sign in, in a database of their own: without them, none needs a password. */
	readonly people?: boolean;
	/** Folders that content may be read from in the set-up. */
	readonly content?: readonly string[];
	readonly say: (text: string) => void;
}

export async function startDemo({
	folder,
	port,
	websitePort,
	readersPort,
	editorPort,
	fresh,
	few,
	people = false,
	content: folders = [],
	say
}: DemoOptions) {
	const db = join(folder, people ? 'people.db' : 'demo.db');
	if (fresh) await Promise.all(['', '-wal', '-shm'].map((end) => rm(db + end, { force: true })));
	const drawn = await drawPictures(folder);
	const content = few ? demoSite([]) : wholeDemoSite([]);
	const { name } = content.site;
	await fill(db, content, drawn, few ? [] : ROUNDS);
	if (people) await withPeople(db, name);
	const key = people ? keyOfEditor(db, name) : undefined;
	const pages = new Map(content.pages.map((page) => [page.path, page]));
	// The website's address is told to Kephalon, so that the cards can show pictures that are not on the net.
	const website = await listen((request, response) => handler(request, response), {
		...{ port: websitePort, what: 'the website', say }
	});
	const via = { origin: content.site.base.replace(/\/$/, ''), at: website.address };
	const readers = await listen(readersHandler(new ReadersService(via)), {
		port: readersPort,
		what: 'the readers',
		say
	});
	const kephalon = await serve({
		readers: readers.address,
		db,
		port,
		say,
		content: folders,
		standIn: { base: content.site.base, origin: website.address }
	});
	const handler = websiteHandler({
		pages,
		files: folder,
		api: `${kephalon.address}/api/sites/${encodeURIComponent(name)}`
	});
	const editor = await listen(
		editorHandler({ pages, site: name, kephalon: () => kephalon.address, key, person: DEMO_EDITOR }),
		{
			...{ port: editorPort, what: 'the editor', say }
		}
	);
	letShow(db, name, editor.address);
	const close = () => Promise.all([kephalon.close(), website.close(), readers.close(), editor.close()]);
	return { db, site: name, kephalon, website, readers, editor, close };
}

async function withPeople(db: string, site: string) {
	const store = new Store(db);
	try {
		await letIn(store, site);
	} finally {
		store.close();
	}
}

const KEY_NAME = 'Merrow Desk';

/** The editor's key, in the place of that of the start before. */
function keyOfEditor(db: string, site: string): string {
	const store = new Store(db);
	try {
		const { id } = store.working.sites.named(site);
		for (const key of store.people.keysAt(id)) if (key.name === KEY_NAME) store.people.dropKey(key.id, id);
		return addKey(store, site, { name: KEY_NAME, scopes: ['edit', 'panel'] });
	} finally {
		store.close();
	}
}

/** The editor may show the panel: it has the port of this start. */
function letShow(db: string, site: string, origin: string) {
	const store = new Store(db);
	try {
		setOrigins(store, site, [origin]);
	} finally {
		store.close();
	}
}

/** Puts the demo site into a database that has none yet, and releases it: at first without what came in later rounds. */
async function fill(
	db: string,
	content: ReturnType<typeof demoSite>,
	drawn: readonly DrawnPicture[],
	rounds: typeof ROUNDS
) {
	const store = new Store(db);
	const isThere = store.working.sites.find(content.site.name) !== undefined;
	if (!isThere) saveSiteFile(store, { ...content, pictures: await takeIn(store, drawn, content.pages) });
	const { name } = content.site;
	const later = new Set(rounds.flat());
	const states = new Map(content.pages.map(({ path, state }) => [path, state]));
	const set = (paths: Iterable<string>, hold: boolean) => {
		for (const path of paths) {
			const changes = { state: hold ? 'draft' : (states.get(path) ?? 'live') };
			keepSettings(store, name, readSettingsEdit({ place: { layer: 'page', path }, changes }), 'bench');
		}
	};
	if (!isThere) {
		set(later, true);
		await runJob('release', { db, site: name, ...(rounds.length > 0 && { note: 'The site goes public' }) });
		for (const [at, paths] of rounds.entries()) {
			set(paths, false);
			await runJob('release', { db, site: name, note: NOTES[at] ?? '' });
		}
		if (rounds.length > 0) await lastChanges(store, name);
	}
	store.close();
}

const NOTES = ['The shop opens, and what was seen in July', 'Guides and walks for the autumn'];

/** What waits for the next release: a few edits, so that there is something to compare. */
async function lastChanges(store: Store, name: string) {
	const edit = (path: string, changes: object) =>
		keepSettings(store, name, readSettingsEdit({ place: { layer: 'page', path }, changes }), 'bench');
	edit('/reserves/gannet-head', { target: 'gannets', key: true });
	edit('/visit', { key: true });
	edit('/', { key: true });
	edit('/walks/fungi-after-rain', { path: '/walks/fungi-in-october' });
	const tag = { tag: 'og:title', body: { kind: 'template', template: 'Boats, buses, boots and dogs' } as const };
	keepRule(store, name, { place: { layer: 'page', path: '/visit' }, ...tag }, { origin: 'bench' });
	await refreshAll(store.file, name);
}

/** The website's pictures come into the library as those of any site do; a few of them are described there. */
async function takeIn(store: Store, drawn: readonly DrawnPicture[], pages: readonly Page[]): Promise<Picture[]> {
	const words = wordsOf(pages);
	const library = new Library(store);
	const pictures: Picture[] = [];
	for (const { picture, file } of drawn) {
		const { src, ...facts } = picture;
		const copy = await library.copyOf(await readFile(file), facts);
		const alt = words.get(src);
		pictures.push({ src, ...copy, name: basename(file), ...(alt && { alt }), ...DESCRIBED[basename(file)] });
	}
	return pictures;
}

/** What pages in English say of their pictures. */
function wordsOf(pages: readonly Page[]): Map<string, string> {
	return new Map(
		pages.flatMap(({ language, fields: { picture } }) =>
			language === undefined && picture && typeof picture === 'object' && 'src' in picture && picture.alt
				? [[picture.src, picture.alt] as const]
				: []
		)
	);
}

const DESCRIBED: Readonly<Record<string, Partial<Picture>>> = {
	'boat.jpg': { focus: [0.3, 0.78] },
	'hoopoe.jpg': { focus: [0.52, 0.5], alts: { fr: 'Un oiseau rose à la huppe dressée, sur du gravier' } },
	'skerry-tall.jpg': { focus: [0.5, 0.36] },
	'isla.jpg': { focus: [0.5, 0.42] }
};

/** `--fresh` starts over; `--people` has people who sign in; `--port` says where Kephalon is, `--port 5000` or `--port=5000`. */
function optionsOf(args: readonly string[]): Pick<DemoOptions, 'fresh' | 'port'> & { readonly people: boolean } {
	let [fresh, people, port] = [false, false, 4870];
	for (let at = 0; at < args.length; at++) {
		const [name = '', inOne] = (args[at] as string).split('=', 2);
		if (name === '--fresh' && inOne === undefined) fresh = true;
		else if (name === '--people' && inOne === undefined) people = true;
		else if (name === '--port') {
			const said = inOne ?? args[++at] ?? '';
			port = /^\d{1,5}$/.test(said) ? Number(said) : 0;
			// The editor stands 30 above.
			if (port < 1 || port > 65_505) throw refuse('demo-port', { port: said });
		} else throw refuse('demo-option', { option: name });
	}
	return { fresh, people, port };
}

/** The program that `npm run demo` starts once all is built. */
export async function main(args: readonly string[]) {
	try {
		const { fresh, people, port } = optionsOf(args);
		const demo = await startDemo({
			folder: 'data/demo',
			port,
			// Beside each other, so that one number tells all four.
			websitePort: port + 10,
			readersPort: port + 20,
			editorPort: port + 30,
			fresh,
			people,
			say: (text) => console.log(text)
		});
		const told = DEMO_PEOPLE.map(({ name, about }) => `  ${name.padEnd(14)}${about}`).join('\n');
		if (people) console.log(`\nWho looks after it, all with the password “${DEMO_PASSWORD}”:\n${told}`);
		console.log(
			`\n  Kephalon      ${demo.kephalon.address}\n  the website   ${demo.website.address}\n  the readers   ${demo.readers.address}\n  an editor     ${demo.editor.address}\n\nCtrl-C ends all.`
		);
		const end = () => void demo.close().then(() => process.exit(0));
		process.once('SIGINT', end);
		process.once('SIGTERM', end);
	} catch (error) {
		const told = explain(error, 'data/demo/demo.db');
		if (!(told instanceof UserError)) throw told;
		console.error(told.message);
		process.exitCode = told.exitCode;
	}
}
