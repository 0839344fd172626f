import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vitest/config';

/** Components are mounted in a document of their own, without a browser. */
const COMPONENTS = 'src/ui/**/*.component.test.ts';

export default defineConfig({
	plugins: [tailwindcss(), sveltekit()],
	worker: { format: 'es' },
	// What is bundled brings the notices of its licences along.
	build: { license: { fileName: 'licences.md' } },
	test: {
		// For what hangs: a busy machine takes twenty times as long as an idle one.
		testTimeout: 600_000,
		hookTimeout: 600_000,
		// Many tests wait for a process they started.
		maxWorkers: '100%',
		coverage: {
			provider: 'v8',
			include: ['src/{core,server,ui}/**/*.ts'],
			exclude: ['**/*.test.ts'],
			reporter: ['text-summary'],
			// The share of branches that some test takes. What runs in threads and in browsers is not seen here.
			thresholds: {
				'src/core/**': { branches: 95 },
				'src/server/**': { branches: 85 },
				'src/ui/**': { branches: 65 }
			}
		},
		projects: [
			{
				extends: true,
				test: {
					name: 'unit',
					include: ['src/**/*.test.ts', 'tests/{command,house,serving,spreadsheets}/**/*.test.ts'],
					exclude: [COMPONENTS]
				}
			},
			{
				extends: true,
				resolve: { conditions: ['browser'] },
				test: { name: 'components', include: [COMPONENTS], environment: 'jsdom' }
			}
		]
	}
});
