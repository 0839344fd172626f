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
				'style-src': ['self', 'unsafe-inline'],
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
