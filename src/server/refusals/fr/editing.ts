import type { EDITING } from '../editing';
import type { InFrench } from '../inFrench';

const hiddenAs = (hidden: string | number) => (hidden === 'draft' ? 'un brouillon' : 'privée');

export const editing: InFrench<typeof EDITING> = {
	'changed-meanwhile': () => 'Cela a été changé ailleurs entre-temps.',
	'changed-again': ({ author, made }) =>
		`Cela reste : ce que cela a changé a été changé de nouveau${made === undefined ? '' : ` par ${author} à ${made}`}. Annulez d’abord cela.`,
	'page-not-there': () => 'Il n’y a pas de telle page dans ce site.',
	'edit-missing': ({ edit }) => `Il n’y a rien à annuler : aucune modification n’a le numéro ${edit}.`,
	'nothing-to-do-again': () => 'Il n’y a rien à refaire.',
	'nothing-to-take-back': () => 'Il n’y a rien à annuler.',
	'action-needs': ({ key }) => `L’action ne peut pas être lue : « ${key} » manque.`,
	'action-what': ({ known }) => `L’action ne peut pas être lue : « do » est l’un de ${known.join(', ')}.`,
	'cell-refused': ({ path, tag, why }) => `${path}, ${tag} : ${why}`,
	'cells-broken': () => 'Les cellules ne peuvent pas être lues : à chacune il faut un chemin, une balise et un texte.',
	'cells-too-many': ({ count, most }) =>
		`${count} cellules dépassent les ${most} qui s’écrivent à la fois. Sortez les pages en CSV, et reprenez-le.`,
	'change-needs': ({ key }) => `Le changement ne peut pas être lu : « ${key} » manque.`,
	'change-needs-pages': () => 'Le changement ne peut pas être lu : il lui faut les chemins de ses pages, ou un filtre.',
	'change-what': ({ known }) => `Le changement ne peut pas être lu : « do » est l’un de ${known.join(', ')}.`,
	'database-replaced': ({ file }) =>
		`La base ${file} a été remplacée ou effacée pendant qu’elle sert : plus rien n’est écrit. Relancez Kephalon.`,
	'edit-broken': ({ wrong }) => `La modification ne peut pas être lue : ${wrong}.`,
	'field-has-values': ({ contentType, field }) =>
		`Des pages du type « ${contentType} » ont déjà quelque chose sous « ${field} ». Choisissez un autre nom.`,
	'field-missing': ({ contentType, field }) => `Le type « ${contentType} » n’a pas de champ « ${field} ».`,
	'field-name-broken': ({ field }) =>
		`« ${field} » ne peut pas nommer un champ : il prend des lettres, des chiffres et des tirets bas.`,
	'field-taken': ({ contentType, field }) =>
		`Le type « ${contentType} » a déjà un champ « ${field} ». Choisissez un autre nom.`,
	'going-back-removes': ({ removes, all }) =>
		`Rien n’est publié : y revenir retirerait ${removes} pages sur ${all}. Recommencez en disant que ${removes} pages partent, si c’est voulu.`,
	'home-among-them': () =>
		'La page d’accueil est parmi elles : elle partirait. Omettez-la, ou faites d’abord d’une autre page la page d’accueil.',
	'home-hidden': ({ path, hidden, contentType }) =>
		`${path} ne peut pas devenir la page d’accueil. ${
			hidden === 'off'
				? `Son type « ${contentType} » est éteint : le site n’aurait pas de page d’accueil. Allumez d’abord le type.`
				: `Elle est ${hiddenAs(hidden)} : le site n’aurait pas de page d’accueil. Mettez-la d’abord en ligne.`
		}`,
	'language-broken': ({ language }) => `« ${language} » n’est pas un code de langue, comme en ou pt-BR.`,
	'layer-unknown': ({ layer }) => `Le changement ne peut pas être lu : « ${layer} » n’est pas une couche.`,
	'leads-to-itself': () => 'Une page retirée ne peut pas mener à elle-même. Choisissez un autre chemin.',
	'long-edit-under-way': ({ author, since }) =>
		`${author} fait entrer beaucoup de pages en ce moment (depuis ${since}). Publiez quand ce sera fini.`,
	'mapping-broken': ({ where, why }) =>
		`« ${where} » ne mène à aucun champ d’un enregistrement : ${why}. Écrivez un JSON Pointer, comme /offer/title, ou un JSONPath, comme $.offers[*].title.`,
	'mapping-missing': ({ contentType }) =>
		`Le type « ${contentType} » ne dit pas où ses champs se trouvent dans un enregistrement. Donnez-lui une correspondance, ou envoyez des champs.`,
	'source-broken': ({ contentType, why }) => `Ce que nomme le type « ${contentType} » n’est pas une source : ${why}.`,
	'record-of-none': ({ page }) =>
		`Aucun type ne nomme une source de données vives qui ait ${page}. Dites son chemin dans les réglages de l’un d’eux.`,
	'rules-not-released': ({ site }) =>
		`Aucune publication de « ${site} » n’a de règles connues. Publiez-le une fois, ou demandez celles de la copie de travail.`,
	'working-not-delivered': () =>
		'Ce qui n’est pas publié n’est pas livré ici. Demandez au serveur où l’on travaille, ou demandez les règles publiées.',
	'pushed-broken': ({ why }) => `La page ne peut pas être lue : ${why}.`,
	'pushed-line-long': ({ most }) => `Une ligne dépasse ${most} octets : finissez chaque page par une ligne.`,
	'site-changed': ({ revision }) =>
		`Le site en est maintenant à la révision ${revision} : relisez-le, et envoyez ce qui doit changer.`,
	'match-unknown': () =>
		'If-Match ne nomme rien de ce qu’un site s’est appelé : son ETag est celui de GET /sites/{site}, comme "r7".',
	'page-changed': ({ path }) =>
		`${path} n’est plus comme quand elle a été lue : relisez-la, et envoyez ce qui doit changer.`,
	'page-missing': ({ path }) => `Il n’y a pas de page « ${path} » dans ce site.`,
	'part-refused': ({ part, finding }) => `Ceci ne peut pas être gardé (${part}) : ${finding}`,
	'path-broken': ({ path }) =>
		`« ${path} » n’est pas un chemin : il commence par une barre oblique et ne contient ni espace, ni ?, ni #.`,
	'path-taken': ({ path }) => `Il y a déjà une page à ${path}. Choisissez un autre chemin.`,
	'piece-missing': ({ piece }) => `Il n’y a pas de pièce « ${piece} » là.`,
	'piece-taken': ({ piece }) => `Il y a déjà une pièce « ${piece} ». Choisissez un autre nom.`,
	'picture-fact-fixed': ({ fact }) =>
		`Le changement ne peut pas être lu : « ${fact} » d’une image se lit dans son fichier et ne se règle pas.`,
	'picture-missing': ({ src }) => `Il n’y a pas d’image « ${src} » dans ce site.`,
	'picture-released': ({ release, path }) =>
		`La publication ${release} la montre encore sur ${path}. Publiez ce que vous avez, puis ôtez-la.`,
	'picture-used-by-site': () => 'Le site ou un de ses types s’en sert : ôtez-la d’abord là.',
	'picture-used-on': ({ page }) => `Elle sert sur ${page} : ôtez-la d’abord là.`,
	'release-missing': ({ release, first, last }) =>
		`Il n’y a pas de publication ${release}. ${last === undefined ? 'Rien n’est encore publié.' : `Il y en a de ${first} à ${last}.`}`,
	'replace-needs-words': () => 'Dites quels mots sont à remplacer.',
	'rule-broken': ({ wrong }) => `La règle ne peut pas être lue : ${wrong}.`,
	'rule-refused': ({ why }) => `${why}`,
	'rule-refused-at': ({ path, why }) => `${path} : ${why}`,
	'setting-broken': ({ wrong }) => `Cela ne peut pas être gardé : ${wrong}.`,
	'settings-broken': () =>
		'Le changement ne peut pas être lu : il lui faut un lieu et des changements, et les règles se règlent à part.',
	'site-being-edited': () => 'Le site est en train d’être modifié : ses images restent. Réessayez dans un moment.',
	'site-empty': ({ site }) =>
		`Le site « ${site} » n’a pas encore de pages. Lisez-en par sa mise en place, ou avec kephalon import.`,
	'starting-set-missing': ({ set }) => `Il n’y a pas de jeu de départ « ${set} ».`,
	'state-unknown': ({ known }) => `Un état est l’un de ${known.join(', ')}.`,
	'table-not-ours': ({ own }) =>
		`Le tableau n’a pas de colonne « path », ou aucune qui commence par « ${own} » : sortez-le d’abord de la salle des pages.`,
	'take-back-removes': ({ removes, all }) =>
		`Rien n’est annulé : ${removes} pages sur ${all} partiraient, avec ce qui y a été écrit. Redemandez en disant que ${removes} pages partent, si c’est voulu.`,
	'taken-back-already': () => 'C’est déjà annulé.',
	'type-becomes-itself': () => 'Ses pages ne peuvent pas devenir des pages du type qui part. Choisissez un autre type.',
	'type-has-pages': ({ pages, contentType }) =>
		`${pages} ${pages === 1 ? 'page est' : 'pages sont'} du type « ${contentType} ». Dites quel type ${pages === 1 ? 'elle devient' : 'elles deviennent'}.`,
	'type-missing': ({ contentType }) => `Il n’y a pas de type « ${contentType} » dans ce site.`,
	'type-needs-name': () =>
		'Il faut à un type un nom de lettres, chiffres, espaces et traits d’union, comme « recette ».',
	'type-taken': ({ contentType }) => `Il y a déjà un type « ${contentType} ». Choisissez un autre nom.`,
	'version-language-same': ({ path, language }) =>
		`${path} est elle-même en « ${language} ». Choisissez une autre langue pour sa version.`,
	'version-hidden': ({ path, hidden, contentType }) =>
		hidden === 'off'
			? `Le type « ${contentType} » de ${path} est éteint : ses lecteurs ne seraient menés nulle part. Allumez d’abord le type.`
			: `${path} est ${hiddenAs(hidden)} : ses lecteurs ne seraient menés nulle part. Mettez-la d’abord en ligne.`,
	'version-itself': () => 'C’est cette page même. Nommez la page qui dit la même chose dans l’autre langue.',
	'version-missing': ({ path }) =>
		`Il n’y a pas de page ${path} dans ce site. Créez-la d’abord, ou revoyez son chemin.`,
	'version-taken': ({ path, other, language }) =>
		`${path} nomme ${other} comme sa version en « ${language} ». Séparez d’abord ces deux-là.`,
	'versions-language-same': ({ language }) =>
		`Les deux pages sont en « ${language} ». Donnez d’abord à l’une sa langue : c’est par elle que les versions diffèrent.`,
	'words-too-long': ({ key, length, most }) => `« ${key} » a ${length} caractères ; au plus ${most} sont pris.`
};
