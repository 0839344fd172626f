import { afterEach, expect, test, vi } from 'vitest';
import { viaFor } from './working';

/** Where a site is asked that is not on the net: at what stands in for it, or at a machine that was named beforehand. */
afterEach(() => void vi.unstubAllEnvs());
const BASE = 'https://www.s.example/';

test('without anything named it is asked at its public name', () => expect(viaFor(BASE)).toBeUndefined());

test('the stand-in is for the site of its base alone: nobody else’s is answered by it', () => {
	vi.stubEnv('KEPHALON_STAND_IN', JSON.stringify({ base: BASE, origin: 'http://127.0.0.1:5000' }));
	expect(viaFor(BASE)).toEqual({ origin: 'https://www.s.example', at: 'http://127.0.0.1:5000' });
	expect(viaFor('https://other.example/')).toBeUndefined();
});

test('a machine that whoever started the server named, and no other', () => {
	vi.stubEnv('KEPHALON_SOURCES', JSON.stringify(['http://127.0.0.1:8080']));
	expect(viaFor(BASE, 'http://127.0.0.1:8080/')).toEqual({
		...{ origin: 'https://www.s.example', at: 'http://127.0.0.1:8080' }
	});
	for (const other of ['http://127.0.0.1:8081', 'http://127.0.0.1', 'https://127.0.0.1:8080', 'nothing', ''])
		expect(() => viaFor(BASE, other)).toThrow(/was not named as a machine that may be asked/);
	vi.unstubAllEnvs();
	expect(() => viaFor(BASE, 'http://127.0.0.1:8080')).toThrow(/Start Kephalon with --source/);
});
