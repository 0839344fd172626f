import { createRequire } from 'node:module';
import type loaded from 'sharp';
import type { Sharp, SharpInput, SharpOptions } from 'sharp';

let made: typeof loaded | undefined;

/** The library for pictures, loaded when the first is looked at: that takes as long as many a command in all. */
export function sharp(input: SharpInput, options?: SharpOptions): Sharp {
	if (!made) {
		made = createRequire(import.meta.url)('sharp') as typeof loaded;
		// Each picture is read once: what the library would keep of it is never asked for again.
		made.cache(false);
	}
	return made(input, options);
}
