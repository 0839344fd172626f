import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join, posix, sep } from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect, test } from 'vitest';

/** How the rooms of the house lean on each other: whoever reads one can read those below it first. */
const src = fileURLToPath(new URL('../../src', import.meta.url));
const ALIASES = { $core: 'core', $server: 'server', $ui: 'ui' } as const;
/** The most files that a folder holds, tests apart. */
const MOST_FILES = 25;

const files = readdirSync(src, { recursive: true, encoding: 'utf8' })
	.map((file) => file.split(sep).join('/'))
	.filter((file) => /\.(ts|svelte)$/.test(file) && !file.endsWith('.test.ts'));

/** The room that a file or folder stands in; what lies at the top of a floor is its door, and no room. */
function roomOf(path: string): string | undefined {
	const [floor, room, ...rest] = path.split('/');
	if (floor === 'server' && room === 'store' && rest.length > 1) return `server/store/${rest[0]}`;
	return room !== undefined && (rest.length > 0 || !/\./.test(room)) ? `${floor}/${room}` : undefined;
}

function* importsOf(file: string): Generator<string> {
	for (const [, from] of readFileSync(join(src, file), 'utf8').matchAll(/(?:from|import\()\s*'([^']+)'/g)) {
		const alias = Object.entries(ALIASES).find(([name]) => from === name || from!.startsWith(`${name}/`));
		if (alias) yield posix.join(alias[1], from!.slice(alias[0].length));
		else if (from!.startsWith('.')) yield posix.join(posix.dirname(file), from!);
	}
}

/** Every room with those that it imports from, and one file that does. */
function leanings(): Map<string, Map<string, string>> {
	const all = new Map<string, Map<string, string>>();
	for (const file of files)
		for (const target of importsOf(file)) {
			const [from, to] = [roomOf(file), roomOf(target)];
			if (from === undefined || to === undefined || from === to) continue;
			const its = all.get(from) ?? new Map<string, string>();
			its.set(to, `${file} → ${target}`);
			all.set(from, its);
		}
	return all;
}

test('no two rooms lean on each other', () => {
	const all = leanings();
	expect(all.size).toBeGreaterThan(30);
	const both = [...all].flatMap(([from, its]) =>
		[...its].filter(([to]) => all.get(to)?.has(from)).map(([, example]) => example)
	);
	expect(both).toEqual([]);
});

test('floors stand on those below them only', () => {
	const MAY: Record<string, readonly string[]> = {
		core: ['core'],
		server: ['core', 'server'],
		// The types of what the server answers, and what the panel and the page around it tell each other.
		ui: ['core', 'server', 'client', 'ui'],
		cli: ['core', 'server', 'cli'],
		routes: ['core', 'server', 'ui', 'routes']
	};
	const wrong = files.flatMap((file) => {
		const may = MAY[file.split('/')[0]!];
		return may
			? [...importsOf(file)].filter((to) => !may.includes(to.split('/')[0]!)).map((to) => `${file} → ${to}`)
			: [];
	});
	expect(wrong).toEqual([]);
	// The interface takes nothing of the server but types, and a route that answers programs nothing of a screen.
	const values = files.filter((file) => {
		const text = readFileSync(join(src, file), 'utf8');
		return file.startsWith('ui/')
			? /import (?!type)[^;]*from '\$server/.test(text)
			: file.startsWith('routes/api/') && /from '\$ui/.test(text);
	});
	expect(values).toEqual([]);
});

test('no folder is a hall', () => {
	const counts = new Map<string, number>();
	for (const file of files) counts.set(dirname(file), (counts.get(dirname(file)) ?? 0) + 1);
	expect([...counts].filter(([, count]) => count > MOST_FILES)).toEqual([]);
});
