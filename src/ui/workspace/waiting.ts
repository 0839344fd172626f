import { wording } from '$ui/words/en/workspace';
import type { AnyEdit } from '$core';
import { benchAt, roomAt } from '$ui/places/rooms';
import { languageName } from '$ui/parts/words';

/** Edits that wait to be kept, in words, and where each stands. */

type Place = AnyEdit['place'];

/** Where an edit is made, in words that follow "of". */
function placeInWords(place: Place): string {
	switch (place.layer) {
		case 'site':
			return wording.theWholeSite;
		case 'type':
			return wording.every(place.name);
		case 'page':
			return place.path;
		case 'picture':
			return wording.thePicture(place.src.split('/').at(-1) ?? '');
	}
}

/** What an edit changes and where, on one line. */
export function editNamed(edit: AnyEdit): string {
	const place = placeInWords(edit.place);
	if ('tag' in edit)
		return wording.of(edit.tag, place, edit.language ? wording.inOne(languageName(edit.language)) : '');
	return wording.settingsOf(place);
}

/** What it would say there, on one line. */
export function editSays(edit: AnyEdit): string {
	if ('changes' in edit)
		return Object.entries(edit.changes)
			.map(([name, value]) => `${name}: ${settingInWords(value)}`)
			.join(' · ');
	const { body } = edit;
	if (body === null) return wording.nothingOfItsOwnAnyMore;
	switch (body.kind) {
		case 'template':
			return body.template;
		case 'borrow':
			return wording.theSameAs(body.from);
		case 'leaveOut':
			return wording.leftOut;
		case 'pictures':
			return wording.sourcesOfPictures;
	}
}

function settingInWords(value: unknown): string {
	if (value === null) return wording.asUsual;
	if (typeof value === 'boolean') return value ? wording.yes : wording.no;
	if (Array.isArray(value)) return value.length === 1 ? 'one' : `${value.length}`;
	return typeof value === 'string' || typeof value === 'number' ? String(value) : 'changed';
}

/** Where it stands on the bench. */
export function addressOfEdit(site: string, edit: AnyEdit): string {
	const { place } = edit;
	const tag = 'tag' in edit ? edit.tag : undefined;
	if (place.layer === 'picture') return roomAt('library', site);
	const at = tag === undefined ? { at: place.layer } : { tag };
	if (place.layer === 'page') return `${benchAt(site, place.path, tag)}${tag === undefined ? '&at=page' : ''}`;
	const query = new URLSearchParams({ ...(place.layer === 'type' && { type: place.name }), ...at });
	return `${roomAt('bench', site)}?${query}`;
}
