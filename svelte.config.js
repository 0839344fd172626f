import adapter from '@sveltejs/adapter-node';

/** @type {import('@sveltejs/kit').Config} */
export default {
	kit: {
		adapter: adapter({ out: 'build/web', envPrefix: 'KEPHALON_WEB_' }),
		alias: { $core: 'src/core/index.ts', $server: 'src/server', $ui: 'src/ui' },
		typescript: {
			config: (config) => {
				config.include = [
					...(config.include ?? []),
					'../src',
					'../demo',
					'../scripts',
					'../tests',
					'../bench',
					'../bin',
					'../*.js',
					'../*.ts'
				];
			}
		},
		csp: {
			mode: 'auto',
			directives: {
				'default-src': ['self'],
				'style-src': ['self'],
				// Two that our packages write: SvelteKit's announcer of pages, and "display: contents" of lists of commands.
				'style-src-attr': [
					'unsafe-hashes',
					'sha256-S8qMpvofolR8Mpjy4kQvEm7m1q8clzU4dfDH0AmvZjo=',
					'sha256-iaOezIDcQIoxCULa6FBKKuLUu09R7kG+Mlu+JVfU3Rw='
				],
				'font-src': ['self', 'data:'],
				'img-src': ['self', 'https:', 'http:', 'data:', 'blob:'],
				'frame-ancestors': ['none'],
				'base-uri': ['none'],
				'object-src': ['none'],
				'form-action': ['self']
			}
		}
	}
};
