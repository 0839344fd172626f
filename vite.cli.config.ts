import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vite';
import project from './package.json' with { type: 'json' };

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

/** The command, its thread, the demo and the benchmark, bundled for Node; packages stay outside. */
export default defineConfig({
	resolve: { alias: { $core: here('src/core/index.ts'), $server: here('src/server') } },
	define: { __KEPHALON_VERSION__: JSON.stringify(project.version) },
	build: {
		ssr: true,
		outDir: 'build/cli',
		emptyOutDir: true,
		target: 'node20',
		rollupOptions: {
			// All in one folder: the code finds its neighbours from where it lies.
			output: { chunkFileNames: '[name]-[hash].js' },
			input: {
				kephalon: here('src/cli/main.ts'),
				thread: here('src/server/jobs/thread.ts'),
				middleware: here('src/client/middleware.ts'),
				client: here('src/client/client.ts'),
				panel: here('src/client/panel.ts'),
				demo: here('demo/demo.ts'),
				bench: here('bench/bench.ts'),
				stream: here('bench/stream.ts'),
				composing: here('bench/compose.ts'),
				delivery: here('bench/delivery.ts'),
				browser: here('bench/browser.ts'),
				scroll: here('bench/scroll.ts'),
				crowd: here('bench/crowd.ts'),
				bare: here('bench/bare.ts'),
				bareKinds: here('bench/bareKinds.ts'),
				programs: here('bench/programs.ts'),
				spine: here('bench/spine.ts'),
				probes: here('bench/probes.ts'),
				templates: here('bench/templates.ts'),
				readers: here('bench/readers.ts'),
				grown: here('bench/grown.ts')
			}
		}
	}
});
