import type { GROUND } from '../ground';
import type { InFrench } from '../inFrench';

export const ground: InFrench<typeof GROUND> = {
	'body-not-json': ({ why }) => `Ce qui a été envoyé n’est pas du JSON : ${why}.`,
	'body-broken': ({ at, why }) => `Ce qui a été envoyé n’est pas ce qui est attendu : « ${at} » ${why}.`,
	'query-broken': ({ at, why }) => `L’adresse demande ce qui n’est pas là : « ${at} » ${why}.`,
	'method-other': ({ method, methods }) => `${method} ne fait rien ici ; il y a ${methods.join(', ')}.`,
	'body-too-large': () => 'Ce qui a été envoyé est trop grand pour être pris.',
	'other-origin': () => 'Un autre site ne peut rien changer ici.',
	'body-of-other-kind': () => 'Envoyez du JSON, ou une image.',
	'hosts-many': () => 'Une demande nomme un seul hôte.',
	'host-foreign': ({ host }) => `Kephalon ne répond que sur cette machine, pas comme « ${host} ».`,
	'address-missing': () => 'Il n’y a rien à cette adresse.',
	'address-broken': () => 'L’adresse n’est pas en encodage pour cent.',
	'released-unreadable': () => 'Ce qui est publié ne peut pas être lu en ce moment. Réessayez.',
	failed: () => 'Kephalon a échoué ; son journal dit pourquoi.',
	'head-of-what': () => 'Nommez la page par ?path=/x ou par ?address=https://…, l’un des deux.',
	'site-not-there': ({ site }) => `Il n’y a pas de site « ${site} ».`,
	'site-not-released': ({ site }) => `Rien du site « ${site} » n’est encore publié. Publiez-le d’abord.`,
	'page-not-released': ({ release, page }) => `La publication ${release} n’a pas de page à ${page}.`,
	'work-missing': () => 'Il n’y a pas de tel travail à vous. On s’en souvient tant que le serveur tourne.',
	'fields-broken': ({ fields }) =>
		`« ${fields} » ne nomme pas de membres. Ils se nomment séparés de virgules, avec des points à l’intérieur : path,title ou pages.path,next.`,
	'source-away': ({ page, why }) => `La source de ${page} est absente, et on n’en savait rien. ${why}`,
	'media-missing': ({ name }) => `Il n’y a pas d’image ${name} dans la médiathèque.`,
	'media-not-now': () => 'L’image ne peut pas être faite maintenant. Réessayez dans un moment.',
	'manifest-missing': () => 'Le site n’a pas d’icône carrée dans la médiathèque dont faire un manifeste.',
	'database-busy': ({ file }) =>
		`La base ${file} est verrouillée par un autre programme. Fermez-le, ou attendez qu’il ait fini, et réessayez.`,
	'database-readonly': ({ file }) =>
		`La base ${file} est en lecture seule. Rendez le fichier et son dossier inscriptibles, ou nommez un autre fichier avec --db.`,
	'database-cannot-be-opened': ({ file }) =>
		`La base ${file} ne peut pas être ouverte. Vérifiez que le chemin est un fichier dans un dossier où vous pouvez écrire.`,
	'database-is-none': ({ file }) =>
		`Le fichier ${file} n’est pas une base. Nommez-en un autre avec --db ; celui-ci a été laissé tel quel.`,
	'database-corrupt': ({ file }) =>
		`La base ${file} est abîmée. Restaurez-la d’une sauvegarde ; elle a été laissée telle quelle.`,
	'database-disk-full': ({ file }) =>
		`La base ${file} n’a pas pu grandir : le disque est plein. Rien n’a été changé. Libérez de la place et réessayez.`,
	'database-disk-fails': ({ file }) =>
		`La base ${file} n’a pas pu être lue ou écrite. Vérifiez le disque et sa place libre. Rien n’a été changé.`,
	'database-folder-closed': ({ file }) =>
		`La base ${file} ne peut pas être créée : le dossier n’est pas inscriptible. Nommez un autre fichier avec --db.`,
	'database-folder-in-the-way': ({ file }) =>
		`La base ${file} ne peut pas être créée : un fichier est là où devrait être son dossier. Nommez un autre fichier avec --db.`,
	'database-disk-readonly': ({ file }) =>
		`La base ${file} ne peut pas être créée : le disque est en lecture seule. Nommez un autre fichier avec --db.`,
	'file-closed': ({ file }) =>
		`${file} ne peut pas être lu ou écrit par cet utilisateur. Changez ses droits, ou nommez-en un autre.`,
	'file-not-there': ({ file }) => `${file} n’est pas là. Vérifiez le chemin.`,
	'file-under-file': ({ file }) =>
		`${file} n’est pas là : un fichier est là où devrait être un dossier. Vérifiez le chemin.`,
	'file-is-folder': ({ file }) => `${file} est un dossier là où devrait être un fichier. Vérifiez le chemin.`,
	'file-in-the-way': ({ file }) => `${file} est dans le chemin. Enlevez-le, ou nommez-en un autre.`,
	'file-disk-readonly': ({ file }) => `${file} est sur un disque en lecture seule. Nommez-en un autre.`,
	'file-disk-full': ({ file }) =>
		`${file} n’a pas pu être écrit : le disque est plein. Libérez de la place et réessayez.`,
	'files-too-many': ({ file }) =>
		`${file} n’a pas pu être ouvert : trop de fichiers sont ouverts. Réessayez dans un moment.`,
	'backup-folder-full': ({ folder }) =>
		`Le dossier ${folder} n’est pas vide. Nommez-en un qui l’est : une sauvegarde n’écrit jamais par-dessus.`,
	'backup-in-the-way': ({ file }) =>
		`${file} est là où irait la sauvegarde. Déplacez-le d’abord, ou nommez un autre fichier avec --db.`,
	'backup-missing': ({ folder }) => `Il n’y a pas de sauvegarde dans ${folder} : il ne contient aucune base (.db).`,
	'base-broken': ({ base }) =>
		`« ${base} » n’est pas une adresse publique de base : il faut une adresse http ou https absolue, comme https://site.example/.`,
	'body-broken-off': () => 'Ce qui a été envoyé n’est pas arrivé en entier. Renvoyez-le.',
	'body-missing': () => 'Rien n’a été envoyé ; un objet avec des noms et des valeurs est attendu, au moins {}.',
	'body-no-record': ({ what }) =>
		`Ce qui a été envoyé est ${what} ; un objet avec des noms et des valeurs est attendu.`,
	'content-folder-closed': ({ folder, told }) => `Le dossier ${folder} ne peut pas être lu, ou n’est pas là. ${told}`,
	'content-folder-not-whole': ({ told }) => `Nommez le dossier par son chemin entier. ${told}`,
	'database-damaged': ({ name, fault }) =>
		`La base ${name} est abîmée (${fault}). Restaurez une sauvegarde antérieure ; elle a été laissée telle quelle.`,
	'database-empty': ({ path }) =>
		`Le fichier ${path} est vide : ce n’est pas une base, et il a été laissé tel quel. Nommez-en une autre avec --db, ou commencez-en une avec kephalon import.`,
	'database-foreign': ({ file }) =>
		`Le fichier ${file} est la base d’un autre programme. Nommez un autre fichier avec --db.`,
	'database-missing': ({ path }) =>
		`Il n’y a pas de base ${path}. Nommez-la avec --db, ou commencez-en une avec kephalon import.`,
	'database-newer': ({ path, version, known }) =>
		`La base ${path} a été écrite par un Kephalon plus récent (version ${version} ; celui-ci connaît jusqu’à ${known}). Mettez Kephalon à jour, ou nommez un autre fichier.`,
	'disk-full': () => 'Le disque est plein. Libérez de la place et réessayez.',
	'filter-too-long': ({ length, most }) => `Le filtre a ${length} caractères ; au plus ${most} sont gardés.`,
	'filters-full': ({ most }) => `Il y a déjà ${most} filtres nommés. Retirez-en un dont personne n’a besoin.`,
	'too-many-tries': ({ most }) => `Au plus ${most} modifications s’essaient l’une contre l’autre à la fois.`,
	'idempotency-key-broken': ({ most }) => `Une Idempotency-Key a de 1 à ${most} caractères.`,
	'idempotency-key-used': () => 'Cette Idempotency-Key a déjà été envoyée avec autre chose. Envoyez une autre clé.',
	'launch-full': ({ most }) => `Au plus ${most} points sont cochés.`,
	'no-content-folders': () =>
		'Aucun dossier ne peut être lu par le web. Lancez Kephalon avec --content et le dossier à lire.',
	'no-database': () => 'Aucune base n’est nommée. Lancez l’application web par la commande kephalon.',
	'no-layout': ({ contentType }) =>
		`${contentType === undefined ? 'Aucun type n’a de' : `Le type « ${contentType} » n’a pas de`} mise en page pour les images de partage. Choisissez-en une sur l’établi, sous Image de partage.`,
	'no-readers': () => 'Aucun lecteur n’est nommé. Lancez Kephalon avec --readers et leur adresse.',
	'recipe-broken': ({ wrong }) =>
		`L’image de partage ne peut pas être dessinée : ${wrong}. Les boîtes tiennent dans 1200 sur 630.`,
	'release-not-there': ({ release, latest }) =>
		`Il n’y a pas de publication ${release} à laquelle revenir.${latest === undefined ? ' Rien n’est encore publié.' : ` Les publications finissent par ${latest}, qui est servie maintenant.`}`,
	'release-removes': ({ removes, released }) =>
		`Rien n’est publié : cela retirerait ${removes} pages sur ${released}. Publiez de nouveau en disant que ${removes} pages partent, si c’est voulu.`,
	'release-without-home': ({ hidden, contentType }) =>
		`Rien n’est publié : la page d’accueil partirait, car ${
			hidden === undefined
				? 'il n’y a pas de page à /'
				: hidden === 'off'
					? `son type « ${contentType} » est éteint`
					: `elle est réglée à ${hidden}`
		}. Mettez-la en ligne, ou faites d’une autre page la page d’accueil.`,
	'site-missing': ({ site, sites }) =>
		`Il n’y a pas de site « ${site} ». ${sites.length > 0 ? `Sites présents : ${sites.map((one) => `« ${one} »`).join(', ')}.` : 'Elle ne contient encore aucun site : commencez par kephalon import.'}`,
	'site-taken': ({ name }) => `Il y a déjà un site « ${name} ». Choisissez un autre nom.`,
	'sitemap-missing': ({ name }) => `Il n’y a pas de plan « ${name} » de ce site.`,
	stopped: () => 'Arrêté.',
	'suppression-needs-reason': () => 'Dites pourquoi c’est mis de côté : d’autres le demanderont.',
	'table-file-missing': () => 'Le fichier du tableau manque derrière ce qui en est dit.',
	'too-much-work': () => 'Trop de travail est déjà en cours. Attendez un moment et réessayez.',
	'work-too-large': () =>
		'Le travail demandait plus de mémoire qu’il n’en peut avoir. Il a été arrêté ; rien n’a été changé.',
	'work-too-long': ({ seconds }) =>
		`Le travail a duré plus de ${seconds} secondes. Il a été arrêté ; rien n’a été changé.`
};
