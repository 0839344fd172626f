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
const door = closed(
	// What the core says in French is loaded where French is spoken, and nowhere else.
	'src/core/index.ts is the only door to the core, beside src/core/french.',
	'**/core/**',
	'!**/core/french',
	'!$core'
);
/** Reading a room's data anew in the midst of a navigation undoes the click: `refresh` waits. */
const refreshing = { name: '$app/navigation', importNames: ['invalidateAll'], message: 'Use refresh of $ui/parts.' };
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

/** What is checked with the types in hand: no promise that nobody waits for, no value of unknown type, no case left out. */
const TYPED = ['**/*.{ts,svelte}'];
const typed = { project: './tsconfig.json', extraFileExtensions: ['.svelte'] };
const UNSAFE = ['argument', 'assignment', 'call', 'member-access', 'return'];

export default ts.config(
	{ ignores: ['build/', '.svelte-kit/', 'node_modules/', 'data/', 'bin/api.d.ts'] },
	...ts.configs.recommended,
	...ts.configs.recommendedTypeCheckedOnly.map((config) => ({ ...config, files: TYPED })),
	{ files: TYPED, languageOptions: { parserOptions: typed } },
	...svelte.configs.recommended,
	{
		files: ['**/*.svelte', '**/*.svelte.ts'],
		languageOptions: { parserOptions: { ...typed, parser: ts.parser, svelteConfig } },
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
		files: TYPED,
		rules: {
			'@typescript-eslint/switch-exhaustiveness-check': ['error', { considerDefaultExhaustiveForUnions: true }],
			// Methods are arrow functions where they are handed on; what may fail later is a promise also where nothing waits.
			'@typescript-eslint/unbound-method': 'off',
			// The one thing thrown that is no error: it leaves a circle in hot code, where a stack would be written each time.
			'@typescript-eslint/only-throw-error': ['error', { allow: [{ from: 'file', name: 'Circle' }] }],
			'@typescript-eslint/require-await': 'off'
		}
	},
	{
		// What a test expects is any value; what a component is given is typed by svelte-check, which lint cannot see.
		files: ['**/*.test.ts', 'tests/**/*.ts', 'conformance/**/*.ts', '**/*.svelte'],
		rules: {
			...Object.fromEntries(UNSAFE.map((what) => [`@typescript-eslint/no-unsafe-${what}`, 'off'])),
			'@typescript-eslint/no-base-to-string': 'off',
			'@typescript-eslint/no-unnecessary-type-assertion': 'off'
		}
	},
	{
		files: ['**/*.svelte'],
		rules: {
			'prefer-const': 'off',
			'@typescript-eslint/no-redundant-type-constituents': 'off'
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
		ignores: ['src/ui/parts/refresh.ts'],
		rules: { 'no-restricted-imports': ['error', { patterns: [door], paths: [refreshing] }] }
	}
);
