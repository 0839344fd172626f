import type { FoundPage } from '../store/working/readIn';
import { mentionsIn } from './staging';

/** Whether a picture calls itself a logo or an icon, by a word of its file's name or its folder's. */
export const isMark = (src: string) =>
	/(?:^|[^a-z])(?:icons?|favicon|badges?|buttons?|sprites?|spacer|avatars?)(?:[^a-z]|$)|logos?(?:[^a-z]|$)/i.test(src);

/** A page without the pictures that are not there: what is not there cannot stand on a card. */
export function withoutPictures(page: FoundPage, gone: ReadonlySet<string>): FoundPage {
	const kept = mentionsIn(page).filter((mention) => !gone.has(mention.src));
	const { pictures: _all, ...fields } = page.fields;
	return { ...page, fields: { ...fields, ...(kept.length && { pictures: kept }) } };
}
