import type { FindingWords } from '../findings/finding';
import { reasons } from './reasons';
import {
	TAKE_ANOTHER,
	MOVE_POINT,
	by,
	atStart,
	inThe,
	kilobytes,
	listed,
	many,
	nameOfLanguage,
	words,
	type Data
} from './saying';
import { served } from './served';

/** What findings say in French: of pages, pictures and a whole site, and of what is served. */
export const findings: FindingWords = {
	...served,
	'local-address': words(
		() => 'Son adresse ne mène à aucun lieu que les lecteurs peuvent atteindre',
		() => 'Réglez l’adresse publique de base du site.'
	),
	'no-picture': words(
		() => 'Pas d’image : sa carte reste vide',
		() => 'Donnez au site une image de partage : elle sert partout où une page n’en a pas.'
	),
	'pin-broken': words<Data<'pin-broken'>>(
		({ tag, pinned, value }) =>
			`${tag} est épinglé à ${pinned === '' ? 'rien' : `« ${pinned} »`}, et donne ${value === '' ? 'rien' : `« ${value} »`}`,
		({ tag }) => `Corrigez ce qui a changé ${tag}, ou épinglez à la page ce qu’il donne maintenant.`
	),
	'lost-reference': words<Data<'lost-reference'>>(
		({ field, path, why }) =>
			`« ${field} » nomme ${path}, ${why === 'nowhere' ? 'où il n’y a pas de page' : why === 'hidden' ? 'que personne ne voit' : 'qui est la page même'} : rien n’en est lu`,
		({ field }) => `Nommez une autre page dans « ${field} », ou videz-le.`
	),
	'heads-circle': words<Data<'heads-circle'>>(
		({ tag, way }) => `Ce que dit ${tag} tourne en rond par les en-têtes d’autres pages, il est donc laissé : ${way}`,
		() => 'Laissez une page du parcours le dire d’elle-même, ou nommez une autre page dans un des champs.'
	),
	'unknown-choice': words<Data<'unknown-choice'>>(
		({ field, value }) => `« ${value} » n’est rien de ce que « ${field} » peut être, donc aucun mot ne le représente`,
		({ field }) => `Choisissez-en un à la page, ou donnez au champ « ${field} » des mots pour lui à son type.`
	),
	'no-title': words(
		() => 'Elle n’a pas de titre',
		() => 'Écrivez un modèle de titre au site, comme {page.title} {separator} {site.name}.'
	),
	gap: words<Data<'gap'>>(
		({ tag, variables }) =>
			`${listed(variables)} ${by(variables, 'a laissé', 'ont laissé')} un trou dans ${inThe(tag)}`,
		() => 'Mettez ce qui va avec une variable entre [[ … ]], pour que cela parte quand la variable est vide.',
		({ tag }) => `Une variable a laissé un trou dans ${inThe(tag)}`
	),
	'name-twice': words<Data<'name-twice'>>(
		({ tag }) => `Le nom du site se trouve deux fois dans ${inThe(tag)}`,
		({ layer }) =>
			layer === 'built-in'
				? 'Ôtez une fois le nom du site des propres mots de la page.'
				: 'Ôtez {site.name} du modèle : les titres des pages le portent déjà.'
	),
	'bare-title': words<Data<'bare-title'>>(
		({ title }) => `La page d’accueil se nomme « ${title} »`,
		() => 'Écrivez le titre de la page d’accueil à partir de {site.name} et {site.tagline}.'
	),
	'no-description': words(
		() => 'Elle n’a pas de description',
		() => 'Donnez un résumé à la page, ou laissez la description se rabattre : {page.summary ?? site.description}.'
	),
	'share-letters': words<Data<'share-letters'>>(
		({ letters }) => `Son image de partage a des lettres qu’aucune police ici ne peut dessiner : ${letters.join(' ')}`,
		() => 'Dites-le dans d’autres lettres, ou laissez une autre image passer avant l’image de partage.',
		() => 'Des images de partage ont des lettres qu’aucune police ici ne peut dessiner'
	),
	'share-contrast': words<Data<'share-contrast'>>(
		({ text, ratio }) =>
			`« ${text} » se lit à peine sur son image de partage : il se détache à ${ratio} contre 1 de ce qui est dessous, 3 contre 1 est le minimum`,
		() => 'Renforcez la teinte sur l’image, ou donnez une autre couleur aux mots.',
		() =>
			'Des mots se lisent à peine sur des images de partage : ils se détachent à moins de 3 contre 1 de ce qui est dessous'
	),
	'logo-picture': words(
		() => 'L’image est un logo',
		() => 'Placez une image de la page avant le logo dans la liste des sources.'
	),
	'small-picture': words<Data<'small-picture'>>(
		({ width, readers }) =>
			`L’image fait ${width} pixels de large : trop petite pour remplir la carte dans ${listed(readers)}`,
		({ needed }) =>
			`Fixez une largeur minimale de ${needed} pixels pour les images de partage, afin que les petites soient passées.`,
		() => 'L’image est trop petite pour remplir la carte dans certains lecteurs'
	),
	cut: words<Data<'cut'>>(
		({ tag, length, readers }) => `${atStart(tag)} a ${length} caractères, plus que n’en montrent ${listed(readers)}`,
		({ layer, tag }) =>
			layer === 'built-in'
				? `Raccourcissez à la page, ou écrivez une règle qui coupe, comme ${tag.endsWith('description') ? '{page.summary ?? page.body | clip 140}' : '{page.title | clip 50}'}.`
				: 'Raccourcissez, ou coupez dans le modèle ce qui y est long.',
		({ tag, readers }) => `${atStart(tag)} dépasse ce que montrent ${listed(readers)}`
	),
	short: words<Data<'short'>>(
		({ tag, length }) => `${atStart(tag)} n’a que ${length} ${length < 2 ? 'caractère' : 'caractères'}`,
		() => 'Dites-en plus à la page, ou ajoutez une seconde source, comme les champs propres au type.',
		({ tag }) => `${atStart(tag)} en dit trop peu`
	),
	'passed-over': words<Data<'passed-over'>>(
		({ tag, other, layer }) => `${other} est réglé à cette couche (${layer}), et ${tag} ne le suit pas`,
		({ tag, other }) => `Réglez aussi ${tag} là, ou retirez sa règle pour qu’il suive ${other}.`,
		({ tag }) => `La balise que ${tag} suivrait est réglée, et il ne la suit pas`
	),
	'dropped-attribute': words<Data<'dropped-attribute'>>(
		({ tag, names }) =>
			`Ce que dit son fichier avec ${tag} n’est pas repris : ${listed(names)} n’est pas un attribut que la balise peut porter ainsi`,
		() => 'Corrigez l’attribut dans le fichier même de la page, ou écrivez la balise en code en plus.',
		({ tag }) =>
			`Tout ce que disent les fichiers avec ${tag} n’est pas repris : une part n’est pas un attribut que la balise peut porter`
	),
	empty: words<Data<'empty'>>(
		({ tag }) => `${tag} ne donne rien`,
		() => 'Donnez-lui une autre source où se rabattre.'
	),
	'picture-small': words<Data<'picture-small'>>(
		({ width, needed, readers }) =>
			`Trop petite pour ${listed(readers)} : ${width} pixels de large, ${needed} iraient pour tous.`,
		TAKE_ANOTHER
	),
	'picture-heavy': words<Data<'picture-heavy'>>(
		({ bytes, most, readers }) =>
			`Trop lourde pour ${listed(readers)} : ${kilobytes(bytes)}, au plus ${kilobytes(most)} sont pris.`,
		() => 'Laissez-la découper à un format : ce qui est découpé est rendu assez léger pour tous.'
	),
	'picture-tall': words<Data<'picture-tall'>>(
		({ width, height }) => `Elle fait ${width} × ${height} : les cartes larges en coupent beaucoup en haut et en bas.`,
		MOVE_POINT
	),
	'picture-long': words<Data<'picture-long'>>(
		({ width, height }) => `Elle fait ${width} × ${height} : les cartes en coupent beaucoup sur les côtés.`,
		MOVE_POINT
	),
	'picture-face-cut': words<Data<'picture-face-cut'>>(
		({ ratios }) => `Découpée en ${listed(ratios)}, elle perd une part de ce qui peut être un visage.`,
		MOVE_POINT
	),
	'picture-text-cut': words<Data<'picture-text-cut'>>(
		({ ratios }) => `Découpée en ${listed(ratios)}, elle perd une part de ce qui semble être du texte.`,
		MOVE_POINT
	),
	'picture-much-text': words<Data<'picture-much-text'>>(
		({ percent }) =>
			`Du texte semble en couvrir ${percent} %, plus d’un cinquième : sur de petites cartes personne ne peut le lire.`,
		TAKE_ANOTHER
	),
	'picture-no-alt': words(
		() => 'Elle n’a pas de texte alternatif : rien n’est dit à ceux qui ne la voient pas.',
		() => 'Dites ce qu’elle montre, en quelques mots.'
	),
	'picture-transparent': words(
		() => 'Des parties en sont transparentes : chaque lecteur la pose sur un fond à lui.',
		TAKE_ANOTHER
	),
	'picture-animated': words(
		() => 'Elle est venue animée : les lecteurs en montrent la première image.',
		() => 'Prenez une image fixe qui en dit plus.'
	),
	'picture-on-many': words<Data<'picture-on-many'>>(
		({ pages, named }) =>
			`Elle est sur les cartes de ${many(pages)} : ${named.join(', ')}${pages > named.length ? ` et ${pages - named.length} de plus` : ''}.`,
		() => 'Donnez à ces pages des images à elles.'
	),
	'picture-repeated': words<Data<'picture-repeated'>>(
		({ pages }) => `Elle se trouve sur ${many(pages)} comme partie du cadre : elle dit peu de celle-ci.`,
		TAKE_ANOTHER
	),
	'picture-named-logo': words(() => 'C’est un logo ou une icône, d’après son nom.', TAKE_ANOTHER),
	'picture-like-logo': words(
		() => 'Elle ressemble à un logo : de peu de couleurs, et petite ou détourée.',
		TAKE_ANOTHER
	),
	'shared-title': words<Data<'shared-title'>>(
		({ value, pages }) => `${many(pages)} ont le titre « ${value} »`,
		() => 'Laissez le modèle du titre dire ce qui les distingue, comme {page.section}.'
	),
	'shared-description': words<Data<'shared-description'>>(
		({ value, pages }) => `${many(pages)} ont la description « ${value.slice(0, 80)} »`,
		() => 'Donnez-leur des résumés à elles, ou laissez le modèle de la description dire ce qui les distingue.'
	),
	'shared-picture': words<Data<'shared-picture'>>(
		({ pages }) => `${many(pages)} montrent la même image`,
		() => 'Donnez au type une image par défaut à lui, ou faites faire ses images de partage à partir de la page.'
	),
	'version-nowhere': words<Data<'version-nowhere'>>(
		({ path, language, to, why }) => `La version ${language} de ${path} mène à ${to}, qui ${reasons.noPlace(why)}`,
		() => 'Nommez la page qui est la version, ou retirez la version.',
		({ language, why }) => `La version ${language} mène à ce qui ${reasons.noPlace(why)}`
	),
	'version-one-way': words<Data<'version-one-way'>>(
		({ path, language, to }) => `${path} nomme ${to} comme sa version ${language}, et n’est pas nommée en retour`,
		() => 'Nommez-la en retour : les lecteurs ne prennent des versions que si les deux pages s’accordent.',
		({ language }) => `Une version ${language} est nommée, et ne nomme pas en retour`
	),
	'canonical-nowhere': words<Data<'canonical-nowhere'>>(
		({ path, to, why }) => `${path} dit qu’elle se trouve à ${to}, qui ${reasons.noPlace(why)}`,
		() => 'Retirez la règle de canonical, ou faites-lui nommer une page qui est là.',
		({ why }) => `L’adresse canonique ${reasons.noPlace(why)}`
	),
	'redirect-nowhere': words<Data<'redirect-nowhere'>>(
		({ path, to }) => `Ce qui était à ${path} mène à ${to}, où il n’y a pas de page`,
		() => 'Faites-le mener à une page qui est là.'
	),
	'key-no-picture': words<Data<'key-no-picture'>>(
		({ path }) => `La page clé ${path} n’a pas d’image à elle`,
		() => 'Choisissez une image à la page.'
	),
	'words-elsewhere': words<Data<'words-elsewhere'>>(
		({ tag, of, words: said, language, pages, isMore, isBegun }) =>
			isBegun
				? `${atStart(tag)} (${of}) pour les pages en ${nameOfLanguage(language)} dit encore « ${said} », comme celui de toutes les langues`
				: `${atStart(tag)} (${of}) dit « ${said} » dans ses propres mots, et ${isMore ? 'au moins ' : ''}${many(pages)} en ${nameOfLanguage(language)} ${pages < 2 ? 'sort' : 'sortent'} ainsi`,
		({ language, isBegun }) =>
			isBegun
				? `Traduisez-y ses mots en ${nameOfLanguage(language)}.`
				: `Écrivez-y une règle pour ${nameOfLanguage(language)} : elle commence avec les mots à traduire.`
	),
	'target-twice': words<Data<'target-twice'>>(
		({ value, pages }) => `${many(pages)} doivent être trouvées par « ${value} »`,
		() => 'Laissez l’expression à l’une d’elles : elles se gênent l’une l’autre.'
	)
};
