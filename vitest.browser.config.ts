import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

export default defineConfig({
	resolve: { alias: { $core: here('src/core/index.ts'), $server: here('src/server') } },
	test: { include: ['tests/browser/**/*.test.ts'], testTimeout: 90_000, hookTimeout: 90_000, fileParallelism: false }
});
