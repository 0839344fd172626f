import type { Pieces } from '../template/pieces';
import type { Picture } from '../model';
import { CANVAS, nameOfRecipe, recipeOf, type RecipeParts, type ShareLayout } from '../pictures/layout';
import { cutSettingOf, keptCopyOf, MEDIA_PATH } from '../pictures/shapes';
import { compileTemplate, type CompiledTemplate } from '../template/compile';
import { partOf, toText } from '../template/values';
import { settleText } from '../text/text';
import { BUILT_IN_PICTURES, choosePictures } from './pictures';
import type { PageScope } from './scope';
import type { ChosenPicture } from './value';
import { piecesFor } from './words';

/**
 * The share picture that a layout makes of a page: its address and its recipe. Its alt text is its title. Pure; drawing
 * is the server's.
 */
export function composeSharePicture(page: PageScope, layout: ShareLayout): ChosenPicture | undefined {
	const [title, line] = textsOf(layout, piecesFor(page.site, page.type)).map((template) =>
		settleText(template.run(page))
	) as [string, string];
	const recipe = recipeOf(layout, page.site.look, {
		...{ title, line, language: page.language, play: page.playMark },
		picture: layout.picture && leadOf(page),
		logo: layout.logo && logoOf(page)
	});
	const src = MEDIA_PATH + nameOfRecipe(recipe);
	const address = page.addresses.ofPicture(src, page.pageAddress);
	if (!address) return undefined;
	const alt = title || line || undefined;
	return { kind: 'picture', ...{ address, src, recipe, ...CANVAS }, type: 'image/jpeg', alt, secure: undefined };
}

/** The templates of a layout's title and line, read once for all its pages. */
const compiled = new WeakMap<
	ShareLayout,
	{ readonly pieces: Pieces | undefined; readonly texts: readonly CompiledTemplate[] }
>();

function textsOf(layout: ShareLayout, pieces: Pieces | undefined): readonly CompiledTemplate[] {
	const known = compiled.get(layout);
	if (known && known.pieces === pieces) return known.texts;
	const texts = [layout.title, layout.line].map((part) => compileTemplate(part?.template ?? '', pieces));
	compiled.set(layout, { pieces, texts });
	return texts;
}

/** The page's own picture that a layout may take. */
export function shareLeadOf(page: PageScope): Picture | undefined {
	const [chosen] = choosePictures(BUILT_IN_PICTURES, '', page);
	return chosen && page.facts(chosen.src);
}

/** The same, if the library holds it, and the point to keep in view. */
function leadOf(page: PageScope): RecipeParts['picture'] {
	const picture = shareLeadOf(page);
	const kept = picture && keptCopyOf(picture);
	return kept && { file: kept.file, ...cutSettingOf(picture, 'wide') };
}

function logoOf(page: PageScope): string | undefined {
	const value = page.siteValue('logo');
	const src = typeof value === 'string' ? value : toText(partOf(value, 'src'));
	const picture: Picture | undefined = src === '' ? undefined : page.facts(src);
	return picture && keptCopyOf(picture)?.file;
}
