import type { EditableLayer } from '$ui/parts/words';

/** The settings of each layer by their names, for who looks for one. */
export const SETTING_NAMES: Readonly<Record<EditableLayer, readonly string[]>> = {
	site: [
		'Name',
		'Public base address',
		'Languages',
		'Time zone',
		'Private',
		'Editors release',
		'Releases kept',
		'Separator',
		'Publisher',
		'Account',
		'Author of pages that name none',
		'Size of cards',
		'Lean heads',
		'Paths that robots leave alone (robots.txt)'
	],
	type: [
		'What one of them is called',
		'These pages are videos',
		'Kind (og:type)',
		'It stands for',
		'Its own picture',
		'Switched off',
		'Paths of its pages',
		'Address of a record',
		'Samples'
	],
	page: ['Path', 'Type', 'Mark for video', 'State', 'Hidden from search', 'Key page', 'Target phrase']
};

/** All of them: `?` says what each does. */
export const ALL_NAMES: ReadonlySet<string> = new Set(Object.values(SETTING_NAMES).flat());
