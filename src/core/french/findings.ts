import type { FindingWords } from '../findings/finding';
import { ownOf } from '../own';

/** What findings say in French. */

type Words<D> = {
	readonly says: (data: D) => string;
	readonly mend: (data: D) => string;
	readonly ofMany?: (data: D) => string;
};
const words = <D>(says: (data: D) => string, mend: (data: D) => string, ofMany?: (data: D) => string): Words<D> => ({
	...{ says, mend },
	...(ofMany && { ofMany })
});
type Data<C extends keyof FindingWords> = Parameters<FindingWords[C]['says']>[0];

const list = new Intl.ListFormat('fr', { type: 'conjunction' });
const listed = (names: readonly string[]) => list.format(names);
const many = (pages: number) => `${pages.toLocaleString('fr')} ${pages < 2 ? 'page' : 'pages'}`;
/** Where one reader does a thing, or several do. */
const by = (readers: readonly unknown[], one: string, more: string) => (readers.length === 1 ? one : more);
const kilobytes = (bytes: number) => `${Math.round(bytes / 1000).toLocaleString('fr')} ko`;
const CALLED: Readonly<Record<string, string>> = { title: 'titre', description: 'description' };
const called = (tag: string) => ownOf(CALLED, tag) ?? tag;
const inThe = (tag: string) => (tag === 'description' ? 'la description' : tag === 'title' ? 'le titre' : tag);
const languages = new Intl.DisplayNames('fr', { type: 'language', fallback: 'code' });
function nameOfLanguage(tag: string): string {
	try {
		return languages.of(tag) ?? tag;
	} catch {
		return tag;
	}
}
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
const TAKE_ANOTHER = () =>
	'Prenez une autre image, ou placez-en une qui convient avant elle dans la liste des sources.';
const MOVE_POINT = () => 'Déplacez le point qui reste visible, ou le format seul.';

export const findings: FindingWords = {
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
		({ tag, length, readers }) => `${capital(inThe(tag))} a ${length} caractères et est coupé dans ${listed(readers)}`,
		({ layer, tag }) =>
			layer === 'built-in'
				? `Raccourcissez-le à la page, ou écrivez une règle qui le coupe, comme ${tag.endsWith('description') ? '{page.summary ?? page.body | clip 140}' : '{page.title | clip 50}'}.`
				: 'Raccourcissez-le, ou coupez dans le modèle ce qui y est long.',
		({ tag, readers }) => `${capital(inThe(tag))} est trop long : coupé dans ${listed(readers)}`
	),
	short: words<Data<'short'>>(
		({ tag, length }) => `${capital(inThe(tag))} n’a que ${length} ${length < 2 ? 'caractère' : 'caractères'}`,
		() => 'Dites-en plus à la page, ou ajoutez une seconde source, comme les champs propres au type.',
		({ tag }) => `${capital(inThe(tag))} en dit trop peu`
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
		({ path, language, to }) => `La version ${language} de ${path} mène à ${to}, où aucune page publique n’est`,
		() => 'Nommez la page qui est la version, ou retirez la version.',
		({ language }) => `La version ${language} mène là où aucune page publique n’est`
	),
	'version-one-way': words<Data<'version-one-way'>>(
		({ path, language, to }) => `${path} nomme ${to} comme sa version ${language}, et n’est pas nommée en retour`,
		() => 'Nommez-la en retour : les lecteurs ne prennent des versions que si les deux pages s’accordent.',
		({ language }) => `Une version ${language} est nommée, et ne nomme pas en retour`
	),
	'canonical-nowhere': words<Data<'canonical-nowhere'>>(
		({ path, to }) => `${path} dit qu’elle se trouve à ${to}, où aucune page publique n’est`,
		() => 'Retirez la règle de canonical, ou faites-lui nommer une page qui est là.',
		() => 'L’adresse canonique ne mène à aucune page publique'
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
				? `${capital(inThe(tag))} (${of}) pour les pages en ${nameOfLanguage(language)} dit encore « ${said} », comme celui de toutes les langues`
				: `${capital(inThe(tag))} (${of}) dit « ${said} » dans ses propres mots, et ${isMore ? 'au moins ' : ''}${many(pages)} en ${nameOfLanguage(language)} ${pages < 2 ? 'sort' : 'sortent'} ainsi`,
		({ language, isBegun }) =>
			isBegun
				? `Traduisez-y ses mots en ${nameOfLanguage(language)}.`
				: `Écrivez-y une règle pour ${nameOfLanguage(language)} : elle commence avec les mots à traduire.`
	),
	'target-twice': words<Data<'target-twice'>>(
		({ value, pages }) => `${many(pages)} doivent être trouvées par « ${value} »`,
		() => 'Laissez l’expression à l’une d’elles : elles se gênent l’une l’autre.'
	),
	unreachable: words<Data<'unreachable'>>(
		({ why }) => `Elle ne peut pas être obtenue : ${why}`,
		({ isInner }) =>
			isInner
				? 'Nommez avec --via la machine qui remplace le site public : elle est alors demandée sous le nom public.'
				: 'Veillez à ce que le serveur réponde à cette adresse.'
	),
	'leads-to-shut': words<Data<'leads-to-shut'>>(
		({ to, readers }) => `Elle mène à ${to}, dont robots.txt écarte ${listed(readers)}`,
		() => 'Laissez robots.txt permettre aux lecteurs de liens d’aller où mènent les adresses partagées.'
	),
	'same-everywhere': words<Data<'same-everywhere'>>(
		({ title, other }) =>
			`Des scripts écrivent la page, et son en-tête est le même à ${other} : chaque adresse se partage comme « ${title} »`,
		() => 'Laissez le serveur écrire l’en-tête de chaque page dedans.'
	),
	'double-encoded': words<Data<'double-encoded'>>(
		({ tag, value }) => `${tag} a été encodé deux fois : « ${value} »`,
		() => 'Lisez le texte en UTF-8 là d’où il vient, et encodez-le une fois.',
		({ tag }) => `${tag} a été encodé deux fois`
	),
	'no-picture-preview': words<Data<'no-picture-preview'>>(
		({ value }) => `Elle dit « ${value} » : la recherche n’en montre aucune image`,
		() => 'Dites max-image-preview:large, si des images peuvent être montrées.'
	),
	'picture-moves': words<Data<'picture-moves'>>(
		({ readers }) => `L’image bouge, et ${listed(readers)} n’en ${by(readers, 'montre', 'montrent')} aucune qui bouge`,
		() => 'Nommez une image fixe.'
	),
	'blocked-by-robots': words<Data<'blocked-by-robots'>>(
		({ readers, line }) => `robots.txt écarte ${listed(readers)}${line ? `, à la ligne ${line}` : ''}`,
		() => 'Laissez robots.txt permettre aux lecteurs de liens de prendre les pages partagées.'
	),
	'robots-failing': words<Data<'robots-failing'>>(
		({ readers, how }) =>
			`robots.txt ${how}, et tant que c’est ainsi ${listed(readers)} ne ${by(readers, 'lit', 'lisent')} rien ici`,
		() => 'Laissez robots.txt répondre : par 404 là où il n’y en a pas.'
	),
	'leads-nowhere': words<Data<'leads-nowhere'>>(
		({ status }) =>
			`Son serveur répond ${status} et ne mène nulle part : aucun lecteur n’a de page dont faire une carte`,
		() => 'Laissez l’adresse répondre 200, ou mener à une qui le fait.'
	),
	'leads-on': words<Data<'leads-on'>>(
		({ to, readers }) =>
			`Elle mène à ${to} par un refresh, que ${listed(readers)} ne ${by(readers, 'suit', 'suivent')} pas`,
		() => 'Menez plus loin par une redirection (301 ou 302).'
	),
	'no-page': words<Data<'no-page'>>(
		({ is }) => `Elle est servie comme ${is} : aucun lecteur ne la prend pour une page`,
		() => 'Servez les pages en text/html, pour être montrées.'
	),
	'fails-for': words<Data<'fails-for'>>(
		({ readers, how }) => `${listed(readers)} ${by(readers, 'n’a', 'n’ont')} pas de page : ${how}`,
		() => 'Laissez chaque lecteur avoir la page que les autres reçoivent.'
	),
	'endless-page': words<Data<'endless-page'>>(
		({ bytes, packed }) =>
			`Elle a plus de ${Math.round(bytes / 1_000_000)} Mo${packed === undefined ? '' : `, comprimés en ${kilobytes(packed)}`} : les lecteurs s’arrêtent en route`,
		() => 'Partagez une page plus courte, et veillez à ce que sa fin arrive.'
	),
	'no-charset': words(
		() => 'Elle ne dit pas son encodage, et a des lettres hors d’ASCII : les lecteurs devinent',
		() => 'Dites charset=utf-8 dans Content-Type, ou dans un élément meta parmi les 1024 premiers octets.'
	),
	'broken-characters': words<Data<'broken-characters'>>(
		({ tag, value }) => `${tag} a des caractères qui n’ont pas pu être lus : « ${value} »`,
		() => 'Envoyez la page dans l’encodage qu’elle dit.'
	),
	'template-left': words<Data<'template-left'>>(
		({ tag, seen }) => `${tag} montre « ${seen} » : un modèle n’a pas été rempli`,
		() => 'Remplissez-le sur le serveur : les lecteurs n’exécutent pas de scripts.',
		({ tag }) => `${tag} montre un modèle qui n’a pas été rempli`
	),
	'escaped-twice': words<Data<'escaped-twice'>>(
		({ tag, seen }) => `${tag} montre « ${seen} » : il a été échappé deux fois`,
		() => 'Échappez son texte une fois.',
		({ tag }) => `${tag} a été échappé deux fois`
	),
	'names-home': words<Data<'names-home'>>(
		({ tag }) => `${tag} nomme la page d’accueil : ce qui est partagé de cette page compte pour celle-là`,
		({ tag }) => `Faites nommer la page même par ${tag}.`
	),
	'error-page': words<Data<'error-page'>>(
		({ status }) => `Son serveur répond ${status}`,
		() => 'Laissez l’adresse répondre 200.'
	),
	'not-found-served': words<Data<'not-found-served'>>(
		({ title }) => `Elle répond comme trouvée, et se nomme « ${title} »`,
		() => 'Laissez une page qui n’est pas là répondre 404 : sinon la recherche la montre, et les cartes aussi.'
	),
	'sign-in-page': words(
		() => 'Elle demande de se connecter : les lecteurs voient cette page et pas celle qui est visée',
		() => 'Laissez les lecteurs de liens la prendre sans se connecter.'
	),
	'redirected-elsewhere': words<Data<'redirected-elsewhere'>>(
		({ to, readers }) =>
			`Elle mène à un autre hôte, ${to} : ${listed(readers)} ne ${by(readers, 'suit', 'suivent')} pas`,
		() => 'Partagez l’adresse où elle finit.'
	),
	'beyond-reading': words<Data<'beyond-reading'>>(
		({ tags, readers, bytes }) =>
			`${listed(tags)} se ${by(tags, 'trouve', 'trouvent')} au-delà des ${Math.round(bytes / 1000)} premiers ko, tout ce que ${by(readers, 'lit', 'lisent')} ${listed(readers)}`,
		() => 'Mettez les balises avant les styles et les scripts.'
	),
	'late-charset': words(
		() => 'L’encodage est déclaré après les 1 024 premiers octets',
		() => 'Mettez <meta charset> en premier dans l’en-tête.'
	),
	'wrong-charset': words<Data<'wrong-charset'>>(
		({ header, markup }) => `Le serveur dit ${header}, la page dit ${markup}`,
		() => 'Faites dire aux deux l’encodage dans lequel est la page.'
	),
	'unknown-charset': words<Data<'unknown-charset'>>(
		({ label }) => `Son serveur nomme un encodage qui n’en est pas un, « ${label} » : les lecteurs devinent`,
		() => 'Dites charset=utf-8 dans Content-Type.'
	),
	'picture-type': words<Data<'picture-type'>>(
		({ address, said, is }) => `L’image ${address} est servie comme ${said}, et est ${is}`,
		() => 'Servez-la comme ce qu’elle est : certains lecteurs n’en prennent pas d’autre.'
	),
	'picture-apart': words<Data<'picture-apart'>>(
		({ address, why, readers }) => `Pour ${listed(readers)}, l’image ${address} : ${why}`,
		() => 'Laissez chaque lecteur prendre l’image que les autres reçoivent.'
	),
	'scheme-address': words<Data<'scheme-address'>>(
		({ tag, scheme, line }) => `${tag} est une adresse en ${scheme}:, qu’aucun lecteur ne prend (ligne ${line})`,
		({ tag }) => `Nommez une adresse https entière dans ${tag}.`,
		({ tag, scheme }) => `${tag} est une adresse en ${scheme}:, qu’aucun lecteur ne prend`
	),
	'relative-address': words<Data<'relative-address'>>(
		({ tag, value }) => `${tag} est une adresse relative, « ${value} »`,
		() => 'Écrivez l’adresse entière.',
		({ tag }) => `${tag} est une adresse relative`
	),
	'local-served': words<Data<'local-served'>>(
		({ tag, value }) => `${tag} mène à cette machine ou à un réseau privé, « ${value} »`,
		() => 'Réglez l’adresse publique de base, et publiez de nouveau.',
		({ tag }) => `${tag} mène à cette machine ou à un réseau privé`
	),
	'missing-tag': words<Data<'missing-tag'>>(
		({ tag, readers }) => `Il n’y a pas de ${tag}, que ${by(readers, 'demande', 'demandent')} ${listed(readers)}`,
		() => 'Veillez à ce que l’en-tête soit écrit dans la page telle que servie.'
	),
	'doubled-tag': words<Data<'doubled-tag'>>(
		({ tag, line, other, differs }) =>
			`${tag} se trouve deux fois, aux lignes ${line} et ${other}${differs ? ', et dit deux choses' : ''}`,
		() => 'Deux outils l’écrivent : coupez-le dans l’un d’eux.',
		({ tag, differs }) => `${tag} se trouve deux fois${differs ? ', et dit deux choses' : ''}`
	),
	'noindex-served': words<Data<'noindex-served'>>(
		({ value }) => `Elle dit « ${value} » : aucune recherche ne la montre`,
		() => 'Retirez-le, si la page doit être trouvée.'
	),
	'noindex-for': words<Data<'noindex-for'>>(
		({ readers }) => `Elle dit à ${listed(readers)}, par leur nom, de ne pas la montrer`,
		() => 'Retirez cela, si la page doit être trouvée.'
	),
	'picture-missing': words<Data<'picture-missing'>>(
		({ address, why }) => `L’image ${address} : ${why}`,
		() => 'Mettez l’image là où le dit son adresse, ou choisissez-en une autre.'
	),
	'served-heavy': words<Data<'served-heavy'>>(
		({ bytes, readers }) =>
			`L’image a ${(bytes / 1_000_000).toFixed(1)} Mo, plus que n’en ${by(readers, 'prend', 'prennent')} ${listed(readers)}`,
		() => 'Allégez-la : 1 200 sur 630 pixels ne demandent pas plus de 300 ko.'
	),
	'picture-unreadable': words<Data<'picture-unreadable'>>(
		({ type }) => `Ce qui se trouve à l’adresse de l’image est ${type || 'autre chose qu’une image'}`,
		() => 'Laissez l’adresse répondre par l’image même.'
	),
	'picture-shut': words<Data<'picture-shut'>>(
		({ readers }) => `Le robots.txt de l’hôte de l’image en écarte ${listed(readers)}`,
		() => 'Laissez robots.txt permettre aux lecteurs de liens de prendre les images des cartes.'
	),
	'picture-form': words<Data<'picture-form'>>(
		({ form, readers }) => `L’image est ${form}, que ${listed(readers)} ne ${by(readers, 'peut', 'peuvent')} pas lire`,
		() => 'Nommez un JPEG ou un PNG.'
	),
	'picture-mark': words<Data<'picture-mark'>>(
		({ width, height }) => `L’image a ${width} sur ${height} pixels : c’est une marque, et aucun lecteur ne la montre`,
		() => 'Nommez une image de 1 200 sur 630 pixels.'
	),
	'served-small': words<Data<'served-small'>>(
		({ width, height, needed, readers }) =>
			`L’image a ${width} sur ${height} pixels ; ${listed(readers)} la ${by(readers, 'montre', 'montrent')} grande à partir de ${needed}`,
		() => 'Nommez-en une de 1 200 sur 630 pixels.'
	),
	'picture-lies': words<Data<'picture-lies'>>(
		({ said, is }) => `Ses balises disent que l’image est ${said} ; elle est ${is}`,
		() => 'Publiez de nouveau, pour que les balises disent ce qu’elle est.'
	),
	'needs-scripts': words(
		() =>
			'Son en-tête est vide tant que des scripts ne le remplissent pas, et aucun lecteur de liens n’exécute de scripts',
		() => 'Laissez le serveur écrire l’en-tête dans la page.'
	),
	'differs-by-reader': words<Data<'differs-by-reader'>>(
		({ readers }) => `${listed(readers)} ${by(readers, 'reçoit', 'reçoivent')} une autre page que les autres`,
		() => 'Servez à tous le même en-tête.'
	),
	'below-head': words<Data<'below-head'>>(
		({ tags }) => `${listed(tags)} ${by(tags, 'se trouve', 'se trouvent')} sous l’en-tête`,
		() => 'Quelque chose finit l’en-tête trop tôt : mettez les balises avant.'
	),
	broken: words<Data<'broken'>>(
		({ how, readers }) => `La réponse est cassée${readers.length > 0 ? ` pour ${listed(readers)}` : ''} : ${how}`,
		() => 'Corrigez le serveur : les lecteurs renoncent ici.'
	),
	'value-broken': words<Data<'value-broken'>>(
		({ tag, value, expected, meant }) =>
			`${tag} dit « ${value} », qui n’est pas ce qu’il faut (${expected}) : les lecteurs le passent${meant === undefined ? '' : ` ; « ${meant} » peut être voulu`}`,
		({ tag, meant }) =>
			meant === undefined ? `Dites dans ${tag} ce pour quoi il est fait, ou omettez-le.` : `Dites « ${meant} ».`,
		({ tag, expected }) => `${tag} n’est pas ce qu’il faut (${expected}) : les lecteurs le passent`
	),
	'near-tag': words<Data<'near-tag'>>(
		({ tag, how, seen, meant }) =>
			how === 'quotes'
				? `${tag} n’est pas entre des guillemets comme le code les a (« ${seen} ») : il est lu en partie, ou avec ce qui suit`
				: how === 'name'
					? `« ${seen} » n’est pas une balise que les lecteurs connaissent : « ${meant} » peut être voulu`
					: how === 'rel'
						? `rel="${seen}" ne lie à rien que les lecteurs connaissent : rel="${meant}" peut être voulu`
						: how === 'place'
							? `Dans ${seen}= se trouve ce qu’Open Graph a dans ${meant}=, où regardent les lecteurs stricts : ${tag}`
							: `${tag} se trouve dans ${seen}= au lieu de ${meant}= : aucun lecteur ne le trouve`,
		({ how, meant }) =>
			how === 'name' || how === 'rel' || how === 'quotes' ? `Écrivez ${meant}.` : `Écrivez ${meant}=.`
	),
	'empty-tag': words<Data<'empty-tag'>>(
		({ tag }) => `${tag} est vide : il ne dit rien, et certains lecteurs le prennent pour ce qui est dit`,
		() => 'Remplissez-le, ou omettez-le.'
	),
	placeholder: words<Data<'placeholder'>>(
		({ tag, value }) => `${tag} est encore ce qui y était avant d’être écrit : « ${value} »`,
		({ tag }) => `Écrivez ${called(tag)} pour cette page.`
	),
	'markup-shown': words<Data<'markup-shown'>>(
		({ tag, seen }) => `${tag} montre du code, « ${seen} » : cartes et listes le montrent tel quel`,
		() => 'Dites-le en texte simple.'
	),
	'languages-differ': words<Data<'languages-differ'>>(
		({ language, tag, value }) => `Le document est en « ${language} », et ${tag} dit « ${value} »`,
		({ language }) => `Dites la langue dans laquelle il est : « ${language} », si c’est le cas.`
	),
	'dates-swapped': words<Data<'dates-swapped'>>(
		({ published, modified }) => `Elle a été changée (${modified}) avant d’être publiée (${published})`,
		() => 'Dites les deux comme elles étaient.'
	),
	'broken-data': words<Data<'broken-data'>>(
		({ why }) => `Son JSON-LD ne peut pas être lu, personne n’en prend donc rien : ${why}`,
		() => 'Écrivez-le en JSON : noms et textes entre guillemets doubles, pas de virgule après le dernier.'
	),
	'language-broken': words<Data<'language-broken'>>(
		({ where, value, meant }) =>
			`${where} dit « ${value} », qui n’est pas une langue que les lecteurs connaissent${meant === undefined ? '' : ` : « ${meant} » peut être voulu`}`,
		({ meant }) => (meant === undefined ? 'Dites un code de langue comme « en » ou « en-GB ».' : `Dites « ${meant} ».`)
	),
	'insecure-address': words<Data<'insecure-address'>>(
		({ tag, value }) =>
			`${tag} nomme ${value}, sans TLS, sur un site qui l’a : ${tag === 'canonical' || tag === 'og:url' ? 'ce qui est partagé et trouvé compte pour une autre adresse' : 'certains lecteurs ne montrent pas une telle image'}`,
		() => 'Nommez-la avec https.',
		({ tag }) => `${tag} est nommé sans TLS, sur un site qui l’a`
	),
	'version-twice': words<Data<'version-twice'>>(
		({ language, other }) =>
			`Deux adresses sont nommées comme sa version en « ${language} » (l’autre à la ligne ${other})`,
		() => 'Nommez-en une pour chaque langue.'
	),
	'file-missing': words<Data<'file-missing'>>(
		({ tag, value }) => `${tag} nomme ${value}, qui n’est pas dans le dossier`,
		() => 'Mettez-le là, ou nommez-en un qui y est.',
		({ tag }) => `${tag} nomme ce qui n’est pas dans le dossier`
	),
	'names-other': words<Data<'names-other'>>(
		({ tag, to }) =>
			`${tag} nomme une autre page, ${to} : ce qui est partagé et trouvé de celle-ci compte pour celle-là`,
		({ tag }) => `Faites nommer la page même par ${tag}, sauf si les deux sont la même.`,
		({ tag }) => `${tag} nomme une autre page : ce qui est partagé et trouvé compte pour celle-là`
	),
	'names-elsewhere': words<Data<'names-elsewhere'>>(
		({ tag, to }) => `${tag} quitte le site, pour ${to} : ce qui est partagé et trouvé de cette page compte là-bas`,
		({ tag }) => `Faites nommer la page même par ${tag}, sauf si elle est une copie de celle-là.`,
		({ tag }) => `${tag} quitte le site : ce qui est partagé et trouvé compte ailleurs`
	),
	'names-differ': words<Data<'names-differ'>>(
		({ canonical, other }) => `canonical dit ${canonical} et og:url dit ${other} : les partages sont comptés à part`,
		() => 'Faites dire aux deux la même adresse.',
		() => 'canonical et og:url disent deux adresses : les partages sont comptés à part'
	)
};
