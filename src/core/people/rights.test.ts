import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
	ALONE,
	fits,
	inArea,
	isWhole,
	mayDo,
	NOBODY,
	ownsAll,
	RIGHTS,
	rolesWith,
	ROLES,
	roleAt,
	type Actor,
	type Role
} from './rights';

const person = (role: Role | undefined, isOwner = false): Actor => ({
	...{ kind: 'person', id: 1, name: 'Ada', isOwner },
	roles: role ? { S: { role, area: {} } } : {}
});

describe('what each may do', () => {
	test.each([
		['owner', ['read', 'edit', 'build', 'probe', 'release', 'own']],
		['builder', ['read', 'edit', 'build', 'probe', 'release']],
		['editor', ['read', 'edit', 'probe']],
		['reviewer', ['read', 'probe', 'release']],
		['reader', ['read']]
	] as const)('%s', (role, rights) => {
		expect(RIGHTS.filter((right) => mayDo(person(role), right, 'S'))).toEqual(rights);
		expect(RIGHTS.filter((right) => mayDo(person(role), right, 'Other'))).toEqual([]);
	});
	test('editors release where the site says so, and get nothing else by it', () => {
		expect(RIGHTS.filter((right) => mayDo(person('editor'), right, 'S', true))).toEqual([
			'read',
			'edit',
			'probe',
			'release'
		]);
		expect(mayDo(person('reader'), 'release', 'S', true)).toBe(false);
		expect(rolesWith('release')).toEqual(['owner', 'builder', 'reviewer']);
		expect(rolesWith('release', true)).toEqual(['owner', 'builder', 'editor', 'reviewer']);
	});
	test('the one at this machine all, nobody nothing, an owner of all everywhere', () => {
		expect(RIGHTS.every((right) => mayDo(ALONE, right, 'S'))).toBe(true);
		expect(RIGHTS.some((right) => mayDo(NOBODY, right, 'S'))).toBe(false);
		expect(mayDo(person(undefined, true), 'own', 'Any')).toBe(true);
		expect([ALONE, NOBODY, person('owner'), person(undefined, true)].map(ownsAll)).toEqual([true, false, false, true]);
	});
	test('a key what its scopes say, at its site alone', () => {
		const key: Actor = { kind: 'key', name: 'k', site: 'S', scopes: ['read', 'release'] };
		expect(RIGHTS.filter((right) => mayDo(key, right, 'S'))).toEqual(['read', 'release']);
		expect(mayDo(key, 'read', 'T')).toBe(false);
		expect(ownsAll(key)).toBe(false);
	});
	test('no name of a site is more than its own', () => {
		for (const name of ['__proto__', 'constructor', 'toString']) {
			expect(roleAt(person('owner'), name)).toBeUndefined();
			expect(RIGHTS.some((right) => mayDo(person('owner'), right, name))).toBe(false);
		}
	});
});

describe('areas', () => {
	const page = { path: '/walks/cliff', type: 'walk', language: 'fr-CA' };
	test.each([
		[{}, true],
		[{ paths: ['/walks/*'] }, true],
		[{ paths: ['/walks/'] }, false],
		[{ paths: ['/reserves/*', '/walks/cl*'] }, true],
		[{ paths: [] }, false],
		[{ types: ['walk'] }, true],
		[{ types: ['reserve'] }, false],
		[{ languages: ['fr'] }, true],
		[{ languages: ['FR-ca'] }, true],
		[{ languages: ['f'] }, false],
		[{ languages: ['en'] }, false],
		[{ paths: ['/walks/*'], types: ['walk'], languages: ['en'] }, false],
		[{ paths: ['/walks/*'], types: ['walk'], languages: ['fr'] }, true]
	])('%j', (area, is) => {
		expect(inArea(area, page, 'en')).toBe(is);
	});
	test('a page that names no language has the site’s first', () => {
		expect(inArea({ languages: ['en'] }, { path: '/', type: 't' }, 'en-GB')).toBe(true);
		expect(isWhole({})).toBe(true);
		expect(isWhole({ types: [] })).toBe(false);
	});
	test('patterns mean what a plain reading of them does', () => {
		const piece = fc.stringMatching(/^[ab/]{0,3}$/);
		fc.assert(
			fc.property(fc.array(piece, { minLength: 1, maxLength: 4 }), fc.stringMatching(/^[ab/]{0,8}$/), (parts, path) => {
				const plain = new RegExp(`^${parts.map((part) => part.replaceAll('/', '\\/')).join('[^]*')}$`);
				expect(fits(parts.join('*'), path)).toBe(plain.test(path));
			})
		);
		expect(fits('a*'.repeat(5000), 'a'.repeat(100_000))).toBe(true);
		expect(ROLES).toHaveLength(5);
	});
});
