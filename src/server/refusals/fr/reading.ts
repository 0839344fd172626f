import type { READING } from '../reading';
import type { InFrench } from '../inFrench';

export const reading: InFrench<typeof READING> = {
	'base-broken-seen': ({ why, base, guess }) =>
		`${why} Vu : « ${base} ».${guess === undefined ? '' : ` Vouliez-vous dire ${guess} ?`}`,
	'base-not-absolute': ({ base, guess }) =>
		`L’adresse de base « ${base} » n’est pas une adresse http ou https absolue.${guess}`,
	'csv-broken': ({ why }) => `Le fichier ne peut pas être lu comme CSV : ${why}.`,
	'cursor-broken': () =>
		'Ce n’est pas un endroit de cette liste dans cet ordre. Commencez sans « after », et continuez avec ce que dit « next ».',
	'fetch-failed': ({ address, why }) => `${address} ne peut pas être obtenue (${why}).`,
	'fetch-forbidden': ({ address, why, from }) =>
		`${address} n’est pas demandée (${why}).${from === undefined ? '' : ` ${from} y mène.`}`,
	'fetch-name-forbidden': ({ address, why }) => `${address} n’est pas demandée (son nom : ${why}).`,
	'fetch-no-host': ({ host }) => `Aucun ${host} ne se trouve. Vérifiez l’adresse.`,
	'fetch-redirects': ({ address, most }) => `${address} redirige plus de ${most} fois. Nommez l’adresse où elle finit.`,
	'fetch-slow': ({ address, seconds }) => `${address} ne répond pas en ${seconds} secondes. Réessayez plus tard.`,
	'fetch-status': ({ address, answer }) => `${address} répond ${answer}. Vérifiez l’adresse.`,
	'fetch-too-large': ({ address, most }) => `${address} dépasse ${most}.`,
	'file-not-json': ({ file, why }) => `${file} n’est pas du JSON : ${why}.`,
	'folder-is-file': ({ folder }) =>
		`${folder} n’est pas un dossier. Nommez le dossier qui contient les fichiers du site.`,
	'folder-missing': ({ folder }) => `Il n’y a pas de dossier ${folder}. Vérifiez le chemin.`,
	'folder-nothing-read': ({ why }) => `${why}`,
	'folder-unreadable': ({ files, folder, first, why }) =>
		`Aucun des ${files} fichiers de ${folder} n’a pu être lu comme une page. Le premier : ${first}, ${why}.`,
	'folder-without-pages': ({ folder }) =>
		`${folder} ne contient aucune page qui se lise (.html, .htm, .xhtml, aussi avec une langue derrière).`,
	'from-not-whole': ({ from }) => `« ${from} » n’est pas une adresse http ou https entière où lire.`,
	'json-broken': ({ why }) => `Le fichier ne peut pas être lu comme JSON : ${why}.`,
	'json-entry-broken': ({ entry }) => `L’entrée ${entry} de la liste JSON n’est pas un enregistrement.`,
	'json-without-list': () => 'Le JSON ne contient pas de liste d’enregistrements, comme [{"path": "/a"}].',
	'list-broken': ({ from, why }) => `${from} n’est ni un plan de site ni un flux : ${why}.`,
	'list-elsewhere': ({ entries, from, base }) => `Aucune des ${entries} entrées de ${from} ne se trouve sous ${base}.`,
	'list-packed': ({ from, most }) => `${from} ne peut pas être décomprimé, ou dépasse ${most} Mio.`,
	'out-holds-folder': ({ out }) => `--out ${out} contient le dossier qui est lu. Nommez un dossier à côté.`,
	'out-in-folder': ({ out }) => `--out ${out} se trouve dans le dossier qui est lu. Nommez un dossier à côté.`,
	'out-is-folder': () =>
		'--out nomme le dossier même. Dites --in-place pour écrire par-dessus ses fichiers, ou nommez un autre dossier.',
	'out-leads-away': ({ to, target }) =>
		`Le dossier de ${to} est un lien qui sort de ${target}. Ôtez le lien, ou nommez un autre dossier.`,
	'pattern-broken': ({ text }) =>
		`« ${text} » n’est pas un motif avec une langue. Écrivez-le 'fr/**=fr' : un motif, « = », un code de langue.`,
	'pattern-fits-none': ({ why }) => `${why}`,
	'picture-damaged': ({ why }) => `L’image est abîmée ou finit trop tôt (${why}).`,
	'picture-empty': () => 'Le fichier est vide.',
	'picture-format': ({ format }) => `Le fichier est ${format}, qui n’est pas une image pour une carte.`,
	'picture-too-heavy': ({ size, most }) => `Le fichier a ${size} ; au plus ${most} sont pris.`,
	'picture-too-large': ({ most }) =>
		`L’image a plus de ${most} millions de pixels. Réduisez-la : les cartes montrent 1 200 sur 630.`,
	'picture-unreadable': () => 'Le fichier n’est pas une image qui se lise, quoi que dise son nom.',
	'picture-without-size': () => 'L’image n’a pas de taille.',
	'probe-address-broken': ({ address }) =>
		`« ${address} » n’est ni une adresse http ou https entière ni un chemin du site.`,
	'probe-needs-base': () => 'Le site n’a pas d’adresse publique de base à examiner.',
	'readers-need-base': () =>
		'Le site n’a pas d’adresse publique de base sur laquelle des lecteurs puissent être interrogés.',
	'readers-busy': ({ reader }) =>
		`${reader} a été interrogé trop souvent et n’écoute plus. Demandez plus tard : le reste attend.`,
	'readers-refuse': ({ origin, why, said }) => `${said ?? `Les lecteurs à ${origin} : ${why}.`}`,
	'readers-silent': ({ origin }) => `Les lecteurs à ${origin} ne répondent pas. Tournent-ils encore ?`,
	'revision-passed': ({ site, revision, wanted }) =>
		`« ${site} » en est à la révision ${revision}, pas à ${wanted} : il a changé entre-temps. Regardez de nouveau, puis dites la nouvelle.`,
	'robots-fails': ({ origin }) =>
		`${origin}/robots.txt ne peut pas être lu : son serveur échoue, et rien ne peut alors être lu. Réessayez plus tard.`,
	'site-file-broken': ({ file, places }) =>
		`${file} n’est pas un fichier de site qui se lise :\n${places.map((place) => `  ${place}`).join('\n')}`,
	'site-file-contradicts': ({ file, faults }) =>
		`${file} se contredit :\n${faults.map((fault) => `  ${fault}`).join('\n')}`,
	'site-file-loses': ({ count, things, more, revision }) =>
		`Rien n’est lu : ${count === 1 ? 'une chose écrite ici serait perdue' : `${count} choses écrites ici seraient perdues`}, car le fichier ne ${count === 1 ? 'la' : 'les'} dit pas :\n${things.map((one) => `  ${one}`).join('\n')}\n${Number(more) > 0 ? `  … et ${more} de plus\n` : ''}Si c’est voulu, dites la révision à remplacer : --revision ${revision}.`,
	'site-file-missing': ({ file }) => `Il n’y a pas de fichier ${file}. Vérifiez le chemin.`,
	'site-file-unreadable': ({ file, why }) => `Le fichier ${file} ne peut pas être lu (${why}).`,
	'site-file-newer': ({ file, version, known }) =>
		`${file} est un fichier de site de version ${version} ; ce Kephalon lit jusqu’à la version ${known}. Mettez Kephalon à jour.`,
	'site-folder-elsewhere': ({ folder }) =>
		`${folder} contient d’autres fichiers. Nommez un nouveau dossier, ou un qui contient un fichier de site.`,
	'site-folder-none': ({ folder }) =>
		`${folder} ne contient pas de fichier de site : il n’y a pas de site.json dedans.`,
	'site-needs-name': () => 'Il faut un nom au site : il est dans les titres et sur les cartes.',
	'markdown-none': ({ folder }) => `${folder} ne contient aucun Markdown qui se lise.`,
	'sheet-missing': ({ sheet, sheets }) => `Le classeur n’a pas de feuille « ${sheet} ». Il y a : ${sheets.join(', ')}.`,
	'table-empty': () => 'Le fichier ne contient aucune ligne : seulement des intitulés, ou rien.',
	'table-needs-path': () =>
		'Aucune colonne ne donne le chemin. Faites-en correspondre une à « path » : elle dit où se trouve une page ; ou laissez faire les chemins du titre.',
	'table-too-long': ({ rows, most }) =>
		`Le fichier contient ${rows} lignes, plus que les ${most} qu’une lecture peut avoir.`,
	'table-unreadable': ({ why }) => `Aucune ligne n’a pu être lue comme une page. La première : ${why}.`,
	'type-name-broken': ({ contentType, pattern }) =>
		`« ${contentType} » ne peut pas nommer le type de ${pattern} : il prend des lettres, des chiffres, des espaces et des traits d’union.`,
	'vector-too-much': ({ why }) => `Le fichier vectoriel ne peut pas être dessiné (${why}). Exportez-le en PNG.`,
	'vector-unsafe': () =>
		'Le fichier vectoriel contient un script ou quelque chose venu d’ailleurs. Exportez-le en PNG.',
	'verify-nothing-released': ({ site }) =>
		`Rien de ${site} n’est publié, il n’y a donc rien à quoi comparer. Publiez-le d’abord.`,
	'verify-running': ({ done }) =>
		`Quelqu’un examine déjà ce qui est servi : ${done} pages jusqu’ici. Attendez, ou arrêtez-le.`,
	'via-address-broken': ({ site }) => `« ${site} » n’est pas une adresse publique qu’elle pourrait remplacer.`,
	'via-not-named': ({ via }) =>
		`${via} n’a pas été nommée comme machine à qui demander. Lancez Kephalon avec --source et son adresse.`,
	'via-broken': ({ text }) =>
		`« ${text} » n’est pas une machine d’où prendre. Écrivez-la http://127.0.0.1:5173, sans chemin.`,
	'web-needs-base': () => 'Il faut à un nouveau site --base, l’adresse publique de ses pages.',
	'web-unreadable': ({ address, why }) => `${address} ne peut pas être lue : ${why}.`,
	'web-without-pages': ({ from, first }) => `Aucune page n’a pu être lue de ${from}.${first}`,
	'workbook-broken': ({ why }) => `Le classeur ne peut pas être lu : ${why}. Enregistrez-le de nouveau en .xlsx.`,
	'workbook-large': ({ most }) =>
		`Le classeur se décomprime en plus de ${most} Mo. Enregistrez la feuille seule, ou en CSV.`,
	'workbook-none': () =>
		'Le fichier est une archive, mais pas un classeur .xlsx. Enregistrez le tableau en .xlsx ou en CSV.',
	'workbook-old': () => 'Le fichier est un ancien classeur, ou un sous mot de passe. Enregistrez-le en .xlsx sans cela.'
};
