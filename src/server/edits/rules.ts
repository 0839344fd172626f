import {
	checkRule,
	editModel,
	editPage,
	fieldsOfAll,
	formatIssue,
	loopThrough,
	piecesFor,
	sameJson,
	type Edit,
	type Issue,
	type Page,
	type Rule
} from '$core';
import { UserError, refuse } from '../errors';
import { checkFor, checkOf, partOf, wrongIn } from '../schemas/schemas';
import type { Store, StoredSite } from '../store/store';
import { Conflict, makeEdit, type Made, type Origin } from './edit';

const EDIT_SCHEMA = {
	type: 'object',
	required: ['place', 'tag', 'body'],
	additionalProperties: false,
	properties: {
		place: {
			oneOf: [
				{ type: 'object', required: ['layer'], additionalProperties: false, properties: { layer: { const: 'site' } } },
				{
					type: 'object',
					required: ['layer', 'name'],
					additionalProperties: false,
					properties: { layer: { const: 'type' }, name: { type: 'string' } }
				},
				{
					type: 'object',
					required: ['layer', 'path'],
					additionalProperties: false,
					properties: { layer: { const: 'page' }, path: { type: 'string' } }
				}
			]
		},
		tag: { type: 'string', maxLength: 200 },
		language: partOf('languageTag'),
		body: { type: ['object', 'null'] }
	}
};
const isEdit = checkFor<Edit>(EDIT_SCHEMA);
const isRule = checkOf<Rule>('rule');

/** An edit of one rule that cannot be kept as it is, with what is wrong and where. */
export class RefusedRule extends UserError {
	constructor(readonly issues: readonly (Issue & { message: string })[]) {
		super('rule-refused', { why: issues[0]!.message, issues });
	}
}

/**
 * Sets one rule, or takes it away when its body is null. `expected` is the rule as the sender saw it, null for none:
 * throws a `Conflict` when it is another one now, and a `RefusedRule` when the new one does not work.
 */
export function keepRule(
	store: Store,
	name: string,
	edit: Edit,
	{ expected, origin }: { readonly expected?: unknown; readonly origin: Origin }
): Made<void> {
	const { place, tag, language, body } = edit;
	const what = { place, tag, ...(language && { language }), after: body, before: null as unknown };
	return makeEdit(store, name, { origin, kind: 'rule', what }, (site) => {
		const current = ruleBefore(store, site, edit);
		if (expected !== undefined && !sameJson(expected, current)) throw new Conflict('changed-meanwhile', current);
		const issues = refuseEdit(store, site, edit);
		if (issues.length > 0) throw new RefusedRule(issues);
		what.before = current;
		store.working.rules.set(site.id, place, tag, language, body);
	});
}

/** The rule that an edit would replace, as it stands now; null for none. */
function ruleBefore(store: Store, { id, site, types }: StoredSite, { place, tag, language }: Edit) {
	const rules =
		place.layer === 'site'
			? site.rules
			: place.layer === 'type'
				? types.find((type) => type.name === place.name)?.rules
				: store.working.pages.at(id, place.path)?.rules;
	const found = rules?.find((rule) => rule.tag === tag && (rule.language ?? '') === (language ?? ''));
	if (!found) return null;
	const { tag: _tag, language: _language, ...body } = found;
	return body;
}

/** An edit as a request gives it, checked for its form. Throws a `UserError`. */
export function readEdit(data: unknown): Edit {
	if (!isEdit(data)) throw refuse('edit-broken', { wrong: wrongIn(isEdit, 'edit') });
	if (data.body && !isRule({ tag: data.tag, ...data.body }))
		throw refuse('rule-broken', { wrong: wrongIn(isRule, 'rule') });
	return data;
}

/** What speaks against keeping an edit: errors of its template or rule, and a loop that it would close (R7). */
export function refuseEdit(store: Store, stored: StoredSite, edit: Edit): Refusal[] {
	const { place } = edit;
	return refuseRule(stored, edit, place.layer === 'page' ? store.working.pages.at(stored.id, place.path) : undefined);
}
type Refusal = Issue & { readonly message: string };

/** The same of a rule for a page that is read already, or of one for the site or a type. */
export function refuseRule({ site, types }: StoredSite, edit: Edit, page: Page | undefined): Refusal[] {
	if (!edit.body) return [];
	const { place } = edit;
	const type = types.find((one) => one.name === (place.layer === 'type' ? place.name : page?.type));
	const rule: Rule = { tag: edit.tag, ...(edit.language && { language: edit.language }), ...edit.body };
	const issues = checkRule(rule, {
		...{ site, type },
		fields: place.layer === 'site' ? fieldsOfAll(types) : (type?.fields ?? [])
	});
	const source = edit.body.kind === 'template' ? edit.body.template : '';
	// Most of many say words alone, which ask for no other tag.
	const mayRead = edit.body.kind === 'borrow' || source.includes('{');
	const loop = mayRead
		? loopThrough(edit.tag, rulesWith({ site, types }, edit, type?.name, page), piecesFor(site, type))
		: undefined;
	const loops: Issue[] = loop
		? [{ code: 'rule/loop', severity: 'error', start: 0, end: source.length, seen: loop.join(' → ') }]
		: [];
	return [...issues, ...loops]
		.filter((issue) => issue.severity === 'error')
		.map((issue) => ({ ...issue, message: formatIssue(issue, source) }));
}

/** The rules that meet on the pages the edit is for, with the edit among them. */
function rulesWith(
	model: Pick<StoredSite, 'site' | 'types'>,
	edit: Edit,
	typeName: string | undefined,
	page: Page | undefined
): Rule[] {
	const after = editModel(model, edit);
	const type = after.types.find((one) => one.name === typeName);
	return [...after.site.rules, ...(type?.rules ?? []), ...(page ? editPage(page, edit).rules : [])];
}
