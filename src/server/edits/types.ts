import {
	inPieces,
	PAGE_FACTS,
	PAGE_FIELDS,
	renameFieldInTemplate,
	renamePieceIn,
	renamePieceInRule,
	renameFieldInRule,
	renameFieldInType,
	ruleAsksFor,
	STARTING_SETS,
	withStartingSet,
	usesOfField,
	sameJson,
	type ContentType,
	type FieldUse,
	type Rule,
	type RuleBody,
	type SettingsEdit,
	ownOf
} from '$core';
import { refuse } from '../errors';
import type { Store, StoredSite } from '../store/store';
import { makeEdit, type Made, type Origin } from './edit';

/** What can be done to whole content types and to their fields. */
export type TypeAction =
	/** Adds a type, or puts a starting set into one: its fields are added, its rules replace those of the same tags. */
	| { readonly do: 'add'; readonly name: string; readonly set?: string }
	| { readonly do: 'rename'; readonly name: string; readonly to: string }
	/** Its pages become pages of the type `to`. */
	| { readonly do: 'remove'; readonly name: string; readonly to?: string }
	/** With the values of its pages, and with all templates that ask for it. */
	| { readonly do: 'renameField'; readonly name: string; readonly field: string; readonly to: string }
	/** A piece of a type, or of the site where the name is empty, with all templates that use it. */
	| { readonly do: 'renamePiece'; readonly name: string; readonly piece: string; readonly to: string };

const NEEDS: Readonly<Record<TypeAction['do'], readonly string[]>> = {
	add: ['name'],
	rename: ['name', 'to'],
	remove: ['name'],
	renameField: ['name', 'field', 'to'],
	renamePiece: ['name', 'piece', 'to']
};

/** An action as a request gives it. Throws a `UserError`. */
export function readTypeAction(data: Readonly<Record<string, unknown>>): TypeAction {
	const action = { do: 'add', ...data };
	if (!Object.hasOwn(NEEDS, action.do)) throw refuse('action-what', { known: Object.keys(NEEDS) });
	for (const key of NEEDS[action.do as TypeAction['do']])
		if (typeof ownOf(action as Record<string, unknown>, key) !== 'string') throw refuse('action-needs', { key });
	return action as unknown as TypeAction;
}

/** Does it; gives the name of the type to look at then. */
export function actOnType(store: Store, name: string, action: TypeAction, origin: Origin): Made<string> {
	const { do: does, ...rest } = action;
	const what = does === 'add' ? rest : action;
	return makeEdit(store, name, { origin, kind: 'type', what }, (site) => {
		switch (action.do) {
			case 'add':
				return add(store, site, action);
			case 'rename':
				refuseName(action.to);
				typeNamed(site, action.name);
				if (site.types.some((type) => type.name === action.to)) throw refuse('type-taken', { contentType: action.to });
				store.working.types.rename(site.id, action.name, action.to);
				return action.to;
			case 'remove':
				return remove(store, site, action);
			case 'renameField':
				renameField(store, site, action);
				return action.name;
			case 'renamePiece':
				renamePiece(store, site, action);
				return action.name;
		}
	});
}

function typeNamed({ types }: StoredSite, name: string): ContentType {
	const type = types.find((one) => one.name === name);
	if (type) return type;
	throw refuse('type-missing', { contentType: name });
}

function refuseName(name: string) {
	if (!/^[\p{L}\p{N}][\p{L}\p{N} _-]{0,60}$/u.test(name) || name in Object.prototype) throw refuse('type-needs-name');
}

function add(store: Store, { id, types }: StoredSite, { name, set }: Extract<TypeAction, { do: 'add' }>): string {
	refuseName(name);
	const chosen = STARTING_SETS.find((one) => one.name === set);
	if (set !== undefined && !chosen) throw refuse('starting-set-missing', { set });
	const type = types.find((one) => one.name === name) ?? { name, label: name, fields: [], rules: [] };
	store.working.types.save(id, chosen ? withStartingSet(type, chosen) : type);
	return name;
}

/** What taking a starting set into a type changes, as an edit to be measured. */
export function editOfSet(store: Store, name: string, data: object): SettingsEdit {
	const { type: typeName, set } = data as Record<string, unknown>;
	const chosen = STARTING_SETS.find((one) => one.name === set);
	if (!chosen) throw refuse('starting-set-missing', { set: String(set) });
	const { name: of, ...changes } = withStartingSet(
		typeNamed(store.working.sites.named(name), String(typeName)),
		chosen
	);
	return { place: { layer: 'type', name: of }, changes };
}

function remove(store: Store, site: StoredSite, { name, to }: Extract<TypeAction, { do: 'remove' }>): string {
	typeNamed(site, name);
	const pages = ownOf(store.working.pages.count(site.id).byType, name) ?? 0;
	if (pages > 0 && to === undefined) throw refuse('type-has-pages', { pages, contentType: name });
	if (to === name) throw refuse('type-becomes-itself');
	if (to !== undefined) {
		typeNamed(site, to);
		store.working.types.change(site.id, name, to);
	}
	store.working.types.remove(site.id, name);
	return to ?? site.types.find((type) => type.name !== name)?.name ?? '';
}

/** What asks for a field of a type; those of a site's templates too, which ask for it on pages of any type. */
export function fieldUses(store: Store, name: string, typeName: string, field: string): FieldUse[] {
	const site = store.working.sites.named(name);
	return usesOfField(site.site, typeNamed(site, typeName), store.working.pages.overridden(site.id), field);
}

function renameField(store: Store, site: StoredSite, { name, field, to }: Extract<TypeAction, { do: 'renameField' }>) {
	const type = typeNamed(site, name);
	if (!/^[\p{L}\p{N}_]{1,60}$/u.test(to) || to in Object.prototype) throw refuse('field-name-broken', { field: to });
	if (!type.fields.some((one) => one.name === field)) throw refuse('field-missing', { contentType: name, field });
	if (type.fields.some((one) => one.name === to)) throw refuse('field-taken', { contentType: name, field: to });
	// What stands under the name already would be written over.
	if (
		[...PAGE_FIELDS, ...PAGE_FACTS].some((one) => one.name === to) ||
		store.working.pages.haveField(site.id, name, to)
	)
		throw refuse('field-has-values', { contentType: name, field: to });
	store.working.types.save(site.id, renameFieldInType(type, field, to));
	store.working.pages.renameField(site.id, name, field, to);
	for (const page of [...store.working.pages.overridden(site.id)].filter((one) => one.type === name))
		for (const rule of page.rules)
			if (ruleAsksFor(rule, field)) {
				const { tag, language, ...body } = renameFieldInRule(rule, field, to);
				store.working.rules.set(site.id, { layer: 'page', path: page.path }, tag, language, body);
			}
	// The site's templates speak to all types: where another type still has the old name, both are asked for.
	const both = site.types.some((other) => other.name !== name && other.fields.some((one) => one.name === field));
	const { pieces } = site.site;
	if (pieces || site.site.rules.some((rule) => ruleAsksFor(rule, field)))
		store.working.sites.save({
			...site.site,
			...(pieces && { pieces: inPieces(pieces, (template) => renameFieldInTemplate(template, field, to, both)) }),
			rules: site.site.rules.map((rule) => renameFieldInRule(rule, field, to, both))
		});
}

/** A site's piece is used by every type that has none of that name itself. */
function renamePiece(store: Store, site: StoredSite, { name, piece, to }: Extract<TypeAction, { do: 'renamePiece' }>) {
	if (!/^[A-Za-z_][\w-]{0,60}$/.test(to) || to in Object.prototype) throw refuse('field-name-broken', { field: to });
	const owner = name === '' ? site.site : typeNamed(site, name);
	if (ownOf(owner.pieces, piece) === undefined) throw refuse('piece-missing', { piece });
	const users =
		name === '' ? site.types.filter((type) => ownOf(type.pieces, piece) === undefined) : [typeNamed(site, name)];
	// Under the new name another piece would stand in for it.
	if ([owner, ...users].some((one) => ownOf(one.pieces, to) !== undefined)) throw refuse('piece-taken', { piece: to });
	if (name === '') store.working.sites.save(renamePieceIn(site.site, piece, to, true));
	for (const type of users) store.working.types.save(site.id, renamePieceIn(type, piece, to, name !== ''));
	const names = new Set(users.map((type) => type.name));
	for (const page of [...store.working.pages.overridden(site.id)].filter((one) => names.has(one.type)))
		for (const rule of page.rules) {
			const { tag, language, ...body } = renamePieceInRule(rule, piece, to);
			if (!sameJson(body, withoutPlace(rule)))
				store.working.rules.set(site.id, { layer: 'page', path: page.path }, tag, language, body);
		}
}

const withoutPlace = ({ tag: _tag, language: _language, ...body }: Rule): RuleBody => body;
