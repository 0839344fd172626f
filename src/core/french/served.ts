import type { FindingWords } from '../findings/finding';
import { megabytes, reasons } from './reasons';
import { by, inThe, kilobytes, listed, words, type Data } from './saying';

const { noPage, noPicture, robotsFailed, what } = reasons;

/** What findings of pages as they are served say in French. */
export const served = {
	unreachable: words<Data<'unreachable'>>(
		({ why }) => `Elle ne peut pas être obtenue : ${noPage(why)}`,
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
			`robots.txt ${robotsFailed(how)}, et tant que c’est ainsi ${listed(readers)} ne ${by(readers, 'lit', 'lisent')} rien ici`,
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
		({ is }) => `Elle est servie comme ${what(is)} : aucun lecteur ne la prend pour une page`,
		() => 'Servez les pages en text/html, pour être montrées.'
	),
	'fails-for': words<Data<'fails-for'>>(
		({ readers, how }) => `${listed(readers)} ${by(readers, 'n’a', 'n’ont')} pas de page : ${noPage(how)}`,
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
		({ address, said, is }) => `L’image ${address} est servie comme ${said}, et est ${what(is)}`,
		() => 'Servez-la comme ce qu’elle est : certains lecteurs n’en prennent pas d’autre.'
	),
	'picture-apart': words<Data<'picture-apart'>>(
		({ address, why, readers }) => `Pour ${listed(readers)}, l’image ${address} ${noPicture(why)}`,
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
		({ address, why }) => `L’image ${address} ${noPicture(why)}`,
		() => 'Mettez l’image là où le dit son adresse, ou choisissez-en une autre.'
	),
	'served-heavy': words<Data<'served-heavy'>>(
		({ bytes, readers }) =>
			`L’image a ${megabytes(bytes)}, plus que n’en ${by(readers, 'prend', 'prennent')} ${listed(readers)}`,
		() => 'Allégez-la : 1 200 sur 630 pixels ne demandent pas plus de 300 ko.'
	),
	'picture-unreadable': words<Data<'picture-unreadable'>>(
		({ type }) => `Ce qui se trouve à l’adresse de l’image est ${what(type)}`,
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
		({ how, readers }) =>
			`La réponse est cassée${readers.length > 0 ? ` pour ${listed(readers)}` : ''} : ${noPage(how)}`,
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
		({ tag }) => `Écrivez ${inThe(tag)} de cette page.`
	),
	'thin-title': words<Data<'thin-title'>>(
		({ tag, title }) => `${tag} dit « ${title} », ce qui ne dit rien de la page`,
		() => 'Dites de quoi traite la page.'
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
} satisfies Partial<FindingWords>;
