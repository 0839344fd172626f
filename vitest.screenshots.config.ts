import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

/** Takes the pictures of docs/screenshots anew, against the built demo: `npm run screenshots`. */
export default defineConfig({
	resolve: { alias: { $core: fileURLToPath(new URL('src/core/index.ts', import.meta.url)) } },
	test: { include: ['tests/screenshots/take.ts'], testTimeout: 120_000, hookTimeout: 120_000, fileParallelism: false }
});
