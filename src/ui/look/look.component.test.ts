import fc from 'fast-check';
import { afterEach, expect, test } from 'vitest';
import { COLOURS, lookAttributes, lookNow, readLook, SPACES, takeLook } from './look';

afterEach(() => {
	for (const name of ['data-look', 'data-space']) document.documentElement.removeAttribute(name);
	document.cookie = 'kephalon-look=; Max-Age=0; Path=/';
});

test('what is taken is seen at once, and kept as it will be read', () => {
	for (const colours of COLOURS)
		for (const space of SPACES) {
			takeLook({ colours, space });
			expect(lookNow()).toEqual({ colours, space });
			const kept = /kephalon-look=([^;]*)/.exec(document.cookie)?.[1];
			expect(readLook(kept)).toEqual({ colours, space });
			expect(document.documentElement.outerHTML).toContain(lookAttributes({ colours, space }));
		}
});

test('a cookie that says anything else is as usual, and puts nothing into a page', () => {
	expect(readLook()).toEqual({ colours: 'system', space: 'usual' });
	expect(readLook('.dense')).toEqual({ colours: 'system', space: 'dense' });
	fc.assert(
		fc.property(
			fc.oneof(fc.string(), fc.constantFrom('"><script>', 'dark" onload="x', '__proto__.constructor')),
			(said) => {
				expect(lookAttributes(readLook(said))).toMatch(
					/^data-look="(system|light|dark)" data-space="(usual|dense|roomy)"$/
				);
			}
		)
	);
});
