import {
	describeFinding,
	fieldsOfAll,
	findInLayout,
	findInPieces,
	isError,
	sameJson,
	takenBack,
	withChanges,
	type ContentType,
	type Fields,
	type Page,
	type Picture,
	type SettingsEdit,
	type Site,
	ownOf
} from '$core';
import { refuse } from '../errors';
import { checkOf, wrongIn } from '../schemas/schemas';
import { refuseSource } from '../sources/sources';
import type { Store, StoredSite } from '../store/store';
import { Conflict, makeEdit, type Made, type Origin } from './edit';
import { refusalOfHome, refusalOfVersion } from './pages';

const VALIDATORS = {
	site: checkOf('site'),
	type: checkOf('contentType'),
	page: checkOf('page'),
	picture: checkOf('picture')
};

const isRecord = (value: unknown): value is Record<string, unknown> =>
	typeof value === 'object' && value !== null && !Array.isArray(value);

/** A change of settings as a request gives it: its place, the changes, and what the sender saw before. */
export function readSettingsEdit(data: unknown): SettingsEdit & { readonly expected?: Record<string, unknown> } {
	if (!isRecord(data) || !isRecord(data.place) || !isRecord(data.changes) || 'rules' in data.changes)
		throw refuse('settings-broken');
	const { layer } = data.place;
	if (!Object.hasOwn(VALIDATORS, String(layer))) throw refuse('layer-unknown', { layer: String(layer) });
	if (layer === 'picture') refuseFacts(data.changes);
	return data as unknown as ReturnType<typeof readSettingsEdit>;
}

/** What people say of a picture; the rest is read from its file. */
const SAID_OF_PICTURES = new Set(['focus', 'cuts', 'alt', 'alts', 'name']);

function refuseFacts(changes: object) {
	const fact = Object.keys(changes).find((key) => !SAID_OF_PICTURES.has(key));
	if (fact !== undefined) throw refuse('picture-fact-fixed', { fact });
}

type Owner = Site | ContentType | Page | Picture;

/** What the settings of a place are now. Throws a `UserError` when there is no such place. */
function settingsAt(store: Store, { id, site, types }: StoredSite, { place }: SettingsEdit): Owner {
	if (place.layer === 'site') return site;
	if (place.layer === 'type') {
		const type = types.find(({ name }) => name === place.name);
		if (type) return type;
		throw refuse('type-missing', { contentType: place.name });
	}
	if (place.layer === 'picture') {
		const picture = store.pictures.one(id, place.src);
		if (picture) return picture;
		throw refuse('picture-missing', { src: place.src });
	}
	const page = store.working.pages.at(id, place.path);
	if (page) return page;
	throw refuse('page-missing', { path: place.path });
}

/** Those of the changed settings that are not as the sender saw them; undefined when all are. */
function conflictOf(owner: Owner, { changes, expected }: ReturnType<typeof readSettingsEdit>) {
	if (!expected) return undefined;
	const now = takenBack(owner as Page, changes as Partial<Page>) as Record<string, unknown>;
	return Object.keys(changes).some(
		(key) => Object.hasOwn(expected, key) && !sameJson(ownOf(now, key), ownOf(expected, key))
	)
		? now
		: undefined;
}

/**
 * Changes settings, wholly or not at all. A page's new path leaves a redirect behind, a site's new name none. Throws a
 * `Conflict` when what is expected to stand there does not.
 */
export function keepSettings(
	store: Store,
	name: string,
	edit: ReturnType<typeof readSettingsEdit>,
	origin: Origin
): Made<void> {
	const what = { place: edit.place, after: edit.changes, before: null as unknown };
	return makeEdit(store, name, { origin, kind: 'settings', what }, (stored) => {
		const owner = settingsAt(store, stored, edit);
		const current = conflictOf(owner, edit);
		if (current) throw new Conflict('changed-meanwhile', current);
		what.before = takenBack(owner as Page, edit.changes as Partial<Page>);
		save(store, stored, edit.place.layer === 'page' ? withHeld(owner as Page, edit) : edit, owner);
	});
}

function save(store: Store, stored: StoredSite, { place, changes }: SettingsEdit, owner: Owner) {
	const changed = withChanges(owner, changes as never);
	const validate = VALIDATORS[place.layer];
	if (!validate(changed)) throw refuse('setting-broken', { wrong: wrongIn(validate, place.layer) });
	const { id } = stored;
	switch (place.layer) {
		case 'site':
			if ((changed as Site).name !== stored.site.name) store.working.sites.rename(id, (changed as Site).name);
			refusePieces(stored, changed as Site, undefined);
			return void store.working.sites.save(changed as Site);
		case 'type':
			refuseLayout(stored, changed as ContentType);
			if ('source' in changes || 'mapping' in changes) refuseSource(changed as ContentType);
			refusePieces(stored, stored.site, changed as ContentType);
			return store.working.types.save(id, changed as ContentType);
		case 'picture':
			return store.pictures.save(id, [changed as Picture]);
		case 'page':
			refusePage(store, stored, owner as Page, changed as Page);
			store.working.pages.move(id, place.path, (changed as Page).path);
			return store.working.pages.save(id, changed as Page);
	}
}

/** Fields that are written here are noted as held: a later reading of what the page came from leaves them. */
function withHeld(page: Page, edit: SettingsEdit): SettingsEdit {
	const { fields, held } = edit.changes as Partial<Page>;
	if (!fields || held !== undefined) return edit;
	return { ...edit, changes: { ...edit.changes, held: heldWith(page, fields) } } as SettingsEdit;
}

/** Which fields of a page are held once it says `fields`: those that somebody wrote here, these among them. */
export function heldWith(page: Page, fields: Fields): readonly string[] {
	const names = new Set([...Object.keys(page.fields), ...Object.keys(fields)]);
	const written = [...names].filter((name) => !sameJson(ownOf(page.fields, name), ownOf(fields, name)));
	return [...new Set([...(page.held ?? []), ...written])];
}

/** A home page that nobody could see, and versions that would lead nowhere, are not kept. */
function refusePage(store: Store, { id, types }: StoredSite, before: Page, after: Page) {
	const refusal =
		after.path === '/' && before.path !== '/' ? refusalOfHome({ ...after, path: before.path }, types) : undefined;
	if (refusal) throw refusal;
	for (const [tag, path] of Object.entries(after.alternates ?? {})) {
		if (!path.startsWith('/') || ownOf(before.alternates, tag) === path) continue;
		const ofVersion = refusalOfVersion(after, store.working.pages.at(id, path), path, types);
		if (ofVersion) throw ofVersion;
	}
}

/** A piece that cannot be read, or leads back to itself, is not kept. */
function refusePieces({ types }: StoredSite, site: Site, type: ContentType | undefined) {
	const target = type ? ({ of: 'type', name: type.name } as const) : ({ of: 'site' } as const);
	const wrong = findInPieces((type ?? site).pieces, target, {
		site,
		type,
		fields: type?.fields ?? fieldsOfAll(types)
	}).find(isError);
	if (wrong && 'part' in wrong.data)
		throw refuse('part-refused', { part: wrong.data.part, finding: describeFinding(wrong) });
}

/** A template that cannot be read is not kept, in a layout as in a rule. */
function refuseLayout({ site }: StoredSite, { name, layout, fields }: ContentType) {
	const wrong = layout && findInLayout(layout, { of: 'type', name }, { site, fields }).find(isError);
	if (wrong && 'part' in wrong.data)
		throw refuse('part-refused', { part: wrong.data.part, finding: describeFinding(wrong) });
}
