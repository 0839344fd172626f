import { createNodeResolver, importX } from 'eslint-plugin-import-x';
import regexp from 'eslint-plugin-regexp';
import svelte from 'eslint-plugin-svelte';
import ts from 'typescript-eslint';
import { openLookups } from './scripts/openLookups.js';
import svelteConfig from './svelte.config.js';

/** Imports run one way: routes, ui and cli → server → core. Each entry says what a room may not import, and why. */
const closed = (/** @type {string} */ message, /** @type {string[]} */ ...names) => ({ group: names, message });
const packages = closed(
	'The core is pure: no Node, no DOM, no framework.',
	'node:*',
	'fs',
	'path',
	'svelte',
	'svelte/*',
	'$app/*',
	'@sveltejs/*',
	'better-sqlite3',
	'sharp',
	'$server',
	'$server/**',
	'$ui/**',
	'**/server/**',
	'**/ui/**',
	'**/routes/**',
	'**/cli/**'
);
const upward = closed(
	'The server knows no screen and no command.',
	'svelte',
	'svelte/*',
	'$app/*',
	'$ui/**',
	'**/ui/**',
	'**/routes/**',
	'**/cli/**'
);
const door = closed('src/core/index.ts is the only door to the core.', '**/core/**', '!$core');
const BROWSER = [
	'window',
	'document',
	'navigator',
	'localStorage',
	'fetch',
	'process',
	'Buffer',
	'require',
	'__dirname'
];

export default ts.config(
	{ ignores: ['build/', '.svelte-kit/', 'node_modules/', 'data/'] },
	...ts.configs.recommended,
	...svelte.configs.recommended,
	{
		files: ['**/*.svelte', '**/*.svelte.ts'],
		languageOptions: { parserOptions: { parser: ts.parser, extraFileExtensions: ['.svelte'], svelteConfig } },
		rules: { 'svelte/no-navigation-without-resolve': 'off', 'svelte/prefer-svelte-reactivity': 'off' }
	},
	{
		rules: {
			'@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
			'@typescript-eslint/no-non-null-assertion': 'off',
			'no-undef': 'off',
			eqeqeq: 'error',
			'svelte/no-at-html-tags': 'error',
			'no-restricted-properties': [
				'error',
				{
					object: 'URL',
					property: 'canParse',
					message:
						'In Node 20 it turns false for good addresses once its caller is optimised. Use parseUrl of the core.'
				}
			]
		}
	},
	{
		files: ['src/**/*.{ts,svelte}'],
		plugins: { 'import-x': importX },
		settings: {
			'import-x/resolver-next': [createNodeResolver({ extensions: ['.ts', '.svelte.ts', '.js', '.svelte', '.json'] })],
			'import-x/parsers': { '@typescript-eslint/parser': ['.ts'], 'svelte-eslint-parser': ['.svelte'] },
			'import-x/extensions': ['.ts', '.svelte'],
			'import-x/ignore': ['node_modules']
		},
		rules: { 'import-x/no-cycle': ['error', { ignoreExternal: true }] }
	},
	{
		// Texts from outside are read in time that grows with their length and no faster.
		files: ['src/**/*.{ts,svelte}'],
		ignores: ['**/*.test.ts'],
		plugins: { regexp },
		rules: {
			'regexp/no-super-linear-backtracking': ['error', { report: 'potential' }],
			'regexp/no-super-linear-move': ['error', { report: 'potential', ignoreSticky: true }]
		}
	},
	{
		// Names from outside are looked up where nothing is inherited.
		files: ['src/{core,server,cli}/**/*.ts'],
		ignores: ['**/*.test.ts'],
		languageOptions: { parserOptions: { project: './tsconfig.json', extraFileExtensions: ['.svelte'] } },
		plugins: { kephalon: openLookups },
		rules: { 'kephalon/no-open-lookup': 'error' }
	},
	{
		// Nothing imports a test of a component.
		files: ['src/**/*.component.test.ts'],
		rules: { 'import-x/no-cycle': 'off' }
	},
	{
		files: ['src/core/**/*.ts'],
		ignores: ['**/*.test.ts'],
		rules: {
			'no-restricted-imports': ['error', { patterns: [packages] }],
			'no-restricted-globals': [
				'error',
				...BROWSER.map((name) => ({ name, message: 'The core is pure: no Node, no DOM.' }))
			]
		}
	},
	{
		files: ['src/server/**/*.ts'],
		ignores: ['**/*.test.ts'],
		rules: { 'no-restricted-imports': ['error', { patterns: [upward, door] }] }
	},
	{
		files: ['src/{routes,ui,cli}/**/*.{ts,svelte}', 'demo/**/*.ts'],
		rules: { 'no-restricted-imports': ['error', { patterns: [door] }] }
	}
);
