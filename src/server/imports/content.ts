import { checkBase, type Site } from '$core';
import { makeImport } from '../edits/edit';
import { UserError } from '../errors';
import { importFolder } from './importFolder';
import type { TableSource } from './table/table';
import { takeTable, type TakenTable } from './takeTable';
import type { Via } from '../fetching/trace';
import { importWeb } from './web/importWeb';
import type { Store } from '../store/store';

/** Where the content of a site comes from. */
export type ContentSource =
	| { readonly kind: 'folder'; readonly folder: string }
	| ({ readonly kind: 'table'; readonly text: string } & TableSource)
	/** A page of a live site, a sitemap or a feed. */
	| { readonly kind: 'web'; readonly from: string }
	| { readonly kind: 'hand' };

export interface Taken {
	readonly pages: number;
	readonly pictures: number;
	readonly skipped: readonly string[];
}

const SKIPPED_SHOWN = 20;

/** Makes a site, or brings the content of one up to date; its settings and rules stay. Throws a `UserError`. */
export async function takeContent(
	store: Store,
	name: string,
	base: string,
	source: ContentSource,
	via?: Via
): Promise<Taken> {
	const checked = checkBase(base);
	if (!checked.base)
		throw new UserError(`${checked.refused} Seen: “${base}”.${checked.guess ? ` Did you mean ${checked.guess}?` : ''}`);
	if (name.trim() === '') throw new UserError('The site needs a name: it stands in titles and on cards.');
	switch (source.kind) {
		case 'folder': {
			const { read, pictures, skipped } = await importFolder(store, {
				folder: source.folder,
				site: name,
				base: checked.base
			});
			return { pages: read, pictures, skipped: shorten(skipped.map(({ path, why }) => `${path}: ${why}`)) };
		}
		case 'table': {
			const { kind: _kind, text, ...said } = source;
			const taken = takeTable(store, { name, base: checked.base, origin: 'setup' }, text, said);
			return { pages: taken.pages, pictures: 0, skipped: shorten(linesOfTable(taken)) };
		}
		case 'web': {
			const { read, skipped, waiting } = await importWeb(store, {
				site: name,
				base: checked.base,
				source: { from: source.from },
				via
			});
			const rest = waiting > 0 ? [`${waiting} more addresses wait: read again to go on`] : [];
			return {
				pages: read,
				pictures: 0,
				skipped: shorten([...rest, ...skipped.map(({ path, why }) => `${path}: ${why}`)])
			};
		}
		case 'hand': {
			putIn(store, name, checked.base, { from: 'hand', pages: 1 }, (id) => {
				store.ensureType(id, 'page');
				if (!store.page(id, '/'))
					store.savePage(id, { path: '/', type: 'page', state: 'live', fields: { title: name }, rules: [] });
			});
			return { pages: 1, pictures: 0, skipped: [] };
		}
	}
}

function putIn(store: Store, name: string, base: string, what: object, work: (id: number) => void) {
	const fresh: Site = { name, base, languages: ['en'], separator: '·', fields: {}, rules: [] };
	makeImport(store, fresh, { origin: 'setup', kind: 'import', what }, ({ id, site }) => {
		store.saveSite({ ...site, base });
		work(id);
	});
}

/** All that was odd about a table, a line each: nothing of it is swallowed. */
export const linesOfTable = ({ skipped, oddCells, oddRows }: TakenTable): string[] => [
	...skipped.map(({ row, why }) => `Row ${row}: ${why}`),
	...oddRows.map(({ line, what }) => `Row ${line} ${what}`),
	...oddCells.map(({ line, column, text, why }) => `Row ${line}, ${column}: “${text.slice(0, 60)}” ${why}`)
];

const shorten = (lines: readonly string[]) =>
	lines.length > SKIPPED_SHOWN
		? [...lines.slice(0, SKIPPED_SHOWN), `… and ${lines.length - SKIPPED_SHOWN} more`]
		: lines;
