import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, expect, test } from 'vitest';
import { saveSiteFile } from '$server/siteFile/siteFile';
import { addPerson, setRole } from '$server/people/accounts';
import { addKey } from '$server/people/keys';
import { Store } from '$server/store/store';

/** Killed while rights are given and taken: nobody has more than the trail says, and no line of it is lost or torn. */

/** How often the program is killed; more by KEPHALON_KILLS. */
const KILLS = Number(process.env.KEPHALON_KILLS ?? 24);
const program = fileURLToPath(new URL('../../bin/kephalon.js', import.meta.url));
const work = mkdtempSync(join(tmpdir(), 'kephalon-killed-people-'));
afterAll(() => rmSync(work, { recursive: true, force: true }));
const db = join(work, 'k.db');

/** Starts the command and kills it after so many milliseconds, unless it ends before; says whether it was killed, and how long it ran. */
function killed(args: readonly string[], after: number): Promise<{ readonly isKilled: boolean; readonly ran: number }> {
	return new Promise((resolve) => {
		const began = performance.now();
		const child = spawn(process.execPath, [program, ...args, '--db', db], { stdio: 'ignore' });
		const timer = setTimeout(() => child.kill('SIGKILL'), after);
		child.once('exit', (_, signal) => {
			clearTimeout(timer);
			resolve({ isKilled: signal === 'SIGKILL', ran: performance.now() - began });
		});
	});
}

/** What each person is, as the lines of the trail say it. */
function asTold(store: Store) {
	const told = new Map<string, { isOwner: boolean; isLocked: boolean; role: unknown }>();
	for (const { what, data } of store.trail.all()) {
		const name = String(data.name);
		const one = told.get(name) ?? { isOwner: false, isLocked: false, role: null };
		if (what === 'person-added') told.set(name, { isOwner: data.isOwner === true, isLocked: false, role: null });
		else if (what === 'person-dropped') told.delete(name);
		else if (what === 'owner-set') told.set(name, { ...one, isOwner: data.isOwner === true });
		else if (what === 'person-locked' || what === 'person-unlocked')
			told.set(name, { ...one, isLocked: what === 'person-locked' });
		else if (what === 'role-set') told.set(name, { ...one, role: data.role });
	}
	return Object.fromEntries([...told].sort());
}
const asKept = (store: Store) =>
	Object.fromEntries(
		store.people
			.all()
			.map(({ id, name, isOwner, isLocked }) => [
				name,
				{ isOwner, isLocked, role: store.people.rolesOf(id).S?.role ?? null }
			])
			.sort()
	);

test(`${KILLS} kills`, { timeout: 20_000 + KILLS * 3000 }, async () => {
	const store = new Store(db);
	saveSiteFile(store, {
		...{ format: 'kephalon-site', version: 2, pictures: [], redirects: {}, pages: [], types: [] },
		site: { name: 'S', base: 'https://s.example/', languages: ['en'], separator: '·', fields: {}, rules: [] }
	} as never);
	addPerson(store, 'Owner');
	for (const name of ['A', 'B', 'C']) addPerson(store, name);
	setRole(store, 'S', 'A', 'editor');
	addKey(store, 'S', { name: 'k', scopes: ['read'] });
	let { ran } = await killed(['people', 'role', 'B', '--site', 'S', '--as', 'reader'], 60_000);
	const verbs = [
		(at: number) => ['people', 'add', `New ${at}`],
		(at: number) => [
			'people',
			'role',
			'ABC'[at % 3]!,
			'--site',
			'S',
			'--as',
			['owner', 'none', 'editor', 'builder'][at % 4]!
		],
		(at: number) => ['people', at % 2 ? 'lock' : 'unlock', 'ABC'[at % 3]!],
		(at: number) => ['people', 'role', 'ABC'[at % 3]!, '--as', at % 2 ? 'owner' : 'none'],
		() => ['people', 'reset', 'C'],
		(at: number) => ['people', 'remove', `New ${at - (at % 6)}`]
	];
	let [kills, lines] = [0, [...store.trail.all()].length];
	for (let at = 0; kills < KILLS && at < KILLS * 4; at++) {
		// Mostly around the moment at which it writes.
		const one = await killed(verbs[at % verbs.length]!(at), ran * (0.5 + Math.random() * 0.55));
		if (one.isKilled) kills++;
		const now = store.trail.verify();
		// A machine that is busy now takes longer than it took then.
		if (!one.isKilled) ran = one.ran;
		else if (now.lines === lines) ran *= 1.04;
		expect(now.broken).toBeUndefined();
		expect(now.lines).toBeGreaterThanOrEqual(lines);
		lines = now.lines;
		expect(asKept(store)).toEqual(asTold(store));
		expect(store.people.all().some(({ isOwner, isLocked }) => isOwner && !isLocked)).toBe(true);
	}
	expect(kills).toBe(KILLS);
	expect(lines).toBeGreaterThan(8);
	store.close();
});
