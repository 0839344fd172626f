import type { AnyEdit, Reach, Rule, RuleBody, SettingsEdit } from '$core';

/** How far the counting of a reach has come. */
export interface Counting {
	readonly seen: number;
	readonly all: number;
}

/** An edit that is being made and is not kept yet. */
export interface Draft {
	readonly edit: AnyEdit;
	/** What a template field holds. */
	readonly text: string;
	/** What stood there when it was begun: a rule's body or null, or the settings it changes. */
	readonly base: unknown;
	reach: Reach | Counting | 'stopped' | undefined;
	/** What the server said when it would not keep it. */
	refused: string | undefined;
	/** What stands there now, when it was changed elsewhere meanwhile. */
	conflict: { readonly current: unknown } | undefined;
}

/** Edits of the same thing have the same key. */
export function keyOfEdit(edit: AnyEdit): string {
	return JSON.stringify('tag' in edit ? [edit.place, edit.tag, edit.language ?? ''] : [edit.place]);
}

/** The key of a change of settings at a place. */
export const keyOfSettings = (place: SettingsEdit['place']) => keyOfEdit({ place, changes: {} } as SettingsEdit);

/** What a rule says, without where and for what; null for none. */
export function bodyOf(rule: Rule | undefined): RuleBody | null {
	if (!rule) return null;
	const { tag: _tag, language: _language, ...body } = rule;
	return body;
}
