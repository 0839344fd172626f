import { renameSync, writeFileSync } from 'node:fs';
import { ownOf, textOfValue, type Page } from '$core';
import { refuse } from '../errors';
import { shownName } from '../files/folder';
import { resolverOf } from '../heads/heads';
import { markdownFiles, type MarkdownFile } from '../imports/markdown/markdownFolder';
import { writeFrontMatter } from '../imports/markdown/frontMatter';
import { pathOf, type TableSource } from '../imports/table/table';
import type { Store } from '../store/store';
import { FIELDS, FRONT_MATTER_TAGS } from './frontMatterTags';

/** What came of writing back, by the names of files. */
export interface FrontMatterTold {
	readonly changed: readonly string[];
	readonly left: readonly { readonly name: string; readonly why: string }[];
}

/**
 * Writes what pages say by themselves (overrides of the named tags, as they come out) into the front matter of the files
 * that they were read from; everything else in a file stays byte for byte. Throws a `UserError`.
 */
export function writeOverridesBack(
	store: Store,
	name: string,
	folder: string,
	{ tags, bare, dryRun }: { readonly tags: readonly string[]; readonly bare: boolean; readonly dryRun: boolean }
): FrontMatterTold {
	const stored = store.working.sites.named(name);
	const unknown = tags.find((tag) => !FIELDS.has(tag));
	if (unknown !== undefined) throw refuse('front-matter-tag', { tag: unknown, tags: FRONT_MATTER_TAGS });
	const mapping = store.working.sources.settings<TableSource>(stored.id, 'table')?.mapping ?? {};
	const keys = new Map(
		tags.map((tag) => {
			const [field, key] = FIELDS.get(tag)!;
			return [tag, Object.keys(mapping).find((column) => ownOf(mapping, column) === field) ?? key];
		})
	);
	const resolver = resolverOf(store, stored, new Date().toISOString());
	const changed: string[] = [];
	const left: { name: string; why: string }[] = [];
	for (const file of markdownFiles(folder, bare, (name, why) => left.push({ name, why }))) {
		const page = store.working.pages.at(stored.id, pathOf(file.path, stored.site.base) ?? file.path);
		const evaluation = page && resolver.evaluate(page);
		const said = new Map(
			[...keys].flatMap(([tag, key]) =>
				page && evaluation && isOwn(page, tag) ? [[key, textOfValue(evaluation.valueOf(tag))] as const] : []
			)
		);
		if (said.size === 0) continue;
		const text = writeFrontMatter(file.text, said);
		if (typeof text !== 'string') left.push({ name: shownName(file.name), why: text.wrong });
		else if (text !== file.text) {
			changed.push(shownName(file.name));
			if (!dryRun) writeWhole(file, text);
		}
	}
	return { changed, left };
}

/** Whether the page itself says a tag, in any language's stead. */
const isOwn = (page: Page, tag: string) =>
	page.rules.some((rule) => rule.tag === tag && rule.language === undefined && rule.kind !== 'leaveOut');

/** Written beside and renamed: a file is never half there. */
function writeWhole({ file }: MarkdownFile, text: string) {
	const beside = Buffer.isBuffer(file) ? Buffer.concat([file, Buffer.from('.kephalon-new')]) : `${file}.kephalon-new`;
	writeFileSync(beside, text);
	renameSync(beside, file);
}
