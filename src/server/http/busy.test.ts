import { expect, test } from 'vitest';
import { ALONE, NOBODY, type Actor } from '$core';
import { amongFew } from './busy';

/** Nobody takes the desk from the others. */

const person = (id: number): Actor => ({ kind: 'person', id, name: `P${id}`, isOwner: false, roles: {} });
const key: Actor = { kind: 'key', name: 'k', site: 'S', scopes: [] };
const HERE = () => '10.0.0.1';

/** Begins so many and ends them when told; gives how many were refused. */
async function begin(who: Actor, many: number, address = HERE) {
	const ends: (() => void)[] = [];
	let refused = 0;
	const all = Array.from({ length: many }, () =>
		amongFew(who, address, () => new Promise<void>((end) => ends.push(end))).catch((error: { code: string }) => {
			expect(error.code).toBe('too-much-at-once');
			refused++;
		})
	);
	await Promise.resolve();
	return {
		refused: () => refused,
		end: async () => {
			for (const end of ends) end();
			await Promise.all(all);
		}
	};
}

test('of one person, key or address so much is done at the same time, and no more', async () => {
	const begun = [await begin(person(1), 40), await begin(person(2), 30), await begin(key, 40), await begin(NOBODY, 40)];
	const elsewhere = await begin(NOBODY, 5, () => '10.0.0.2');
	expect([...begun, elsewhere].map((one) => one.refused())).toEqual([8, 0, 8, 8, 0]);
	for (const one of [...begun, elsewhere]) await one.end();
	const after = await begin(person(1), 32);
	expect(after.refused()).toBe(0);
	await after.end();
});

test('what fails is over, too; whoever is alone is not counted', async () => {
	for (let at = 0; at < 50; at++)
		await amongFew(person(3), HERE, () => {
			throw new Error('no');
		}).catch(() => undefined);
	expect(await amongFew(person(3), HERE, () => 'done')).toBe('done');
	const alone = await begin(ALONE, 100);
	expect(alone.refused()).toBe(0);
	await alone.end();
});
