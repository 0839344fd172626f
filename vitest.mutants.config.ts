import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

/** The unit tests that notice faults put into the core and the server; KEPHALON_MUTANTS names the folder. */
export default defineConfig({
	resolve: { alias: { $core: here('src/core/index.ts'), $server: here('src/server') } },
	test: {
		include: [`${process.env.KEPHALON_MUTANTS ?? 'src/core'}/**/*.test.ts`],
		testTimeout: 60_000
	}
});
