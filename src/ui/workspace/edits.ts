import type { AnyEdit, Rule, RuleBody, SettingsEdit } from '$core';

/** Edits of the same thing have the same key. */
export function keyOfEdit(edit: AnyEdit): string {
	return JSON.stringify('tag' in edit ? [edit.place, edit.tag, edit.language ?? ''] : [edit.place]);
}

/** The key of a change of settings at a place. */
export const keyOfSettings = (place: SettingsEdit['place']) => keyOfEdit({ place, changes: {} } as SettingsEdit);

const BODIES = new WeakMap<Rule, RuleBody>();

/** What a rule says, without where and for what, the same object each time; null for none. */
export function bodyOf(rule: Rule | undefined): RuleBody | null {
	if (!rule) return null;
	let known = BODIES.get(rule);
	if (!known) {
		const { tag: _tag, language: _language, ...body } = rule;
		BODIES.set(rule, (known = body));
	}
	return known;
}
