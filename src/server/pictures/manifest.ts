import { iconsOf, nameOfIcon, webManifest, type Rule } from '$core';
import type { Store, StoredSite } from '../store/store';

/** The web manifest of a site, and the files of the library that it names; undefined without a square icon. */
export function manifestOf(store: Store, { id, site }: StoredSite) {
	const { icon } = site.fields;
	const src =
		typeof icon === 'string' ? icon : icon && typeof icon === 'object' && 'src' in icon ? icon.src : undefined;
	const picture = src === undefined ? undefined : store.pictures.one(id, src);
	const content = picture && webManifest(factsOf(site), picture);
	if (!picture || !content) return undefined;
	return { content, files: (iconsOf(picture)?.manifest ?? []).map(nameOfIcon) };
}

function factsOf({ name, languages, rules }: StoredSite['site']) {
	const colour = rules.find((rule): rule is Extract<Rule, { kind: 'template' }> => isThemeColour(rule))?.template;
	return {
		name,
		language: languages[0] ?? 'en',
		...(colour && /^#[0-9a-f]{3,8}$/i.test(colour) && { themeColour: colour })
	};
}

const isThemeColour = (rule: Rule) => rule.tag === 'theme-color' && rule.kind === 'template';
