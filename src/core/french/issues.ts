import type { IssueWords } from '../issue';

/** What is wrong in templates and rules, in French. */

const didYouMean = ({ nearest }: { readonly nearest?: string }) =>
	nearest ? ` Vouliez-vous dire « ${nearest} » ?` : '';
const known = ({ expected }: { readonly expected?: string }) => (expected ? ` Connus : ${expected}.` : '');

const at: IssueWords['at'] = (line, column) => `à ${line}:${column}`;
const says: IssueWords['says'] = {
	'template/too-long': (i) => `Le modèle a ${i.seen} caractères. Au plus ${i.expected} tiennent ; raccourcissez-le.`,
	'template/too-deep': (i, at) =>
		`Des passages facultatifs s’emboîtent trop profondément ${at}. Au plus ${i.expected} niveaux tiennent ; ôtez-en un.`,
	'template/unclosed-placeholder': (_, at) =>
		`Le « { » ${at} n’est jamais fermé. Ajoutez « } », ou écrivez « \\{ » pour une simple accolade.`,
	'template/unclosed-optional': (_, at) =>
		`Le « [[ » ${at} n’est jamais fermé. Ajoutez « ]] », ou écrivez « \\[ » pour un simple crochet.`,
	'template/unclosed-string': (_, at) => `Le texte qui commence ${at} n’est jamais fermé. Ajoutez un second guillemet.`,
	'template/empty-placeholder': (_, at) =>
		`Il n’y a rien entre les accolades ${at}. Écrivez une variable comme {page.title}.`,
	'template/unexpected': (i, at) => `${i.seen ? `« ${i.seen} »` : 'Fin'} inattendu ${at}. Attendu : ${i.expected}.`,
	'template/trailing-escape': (_, at) =>
		`Le « \\ » ${at} n’a rien derrière lui. Écrivez « \\\\ » pour une simple barre oblique inverse.`,
	'template/stray-close': (i, at) =>
		`« ${i.seen} » ${at} ne ferme rien et s’écrit tel quel. Écrivez « \\${i.seen} » pour le dire.`,
	'template/unknown-root': (i, at) => `Nom inconnu « ${i.seen} » ${at}. Attendu : ${i.expected}.${didYouMean(i)}`,
	'template/unknown-variable': (i, at) => `Variable inconnue « ${i.seen} » ${at}.${didYouMean(i) || known(i)}`,
	'template/unknown-filter': (i, at) => `Filtre inconnu « ${i.seen} » ${at}.${didYouMean(i) || known(i)}`,
	'template/wrong-arguments': (i, at) => `Le filtre « ${i.seen} » ${at} prend : ${i.expected}.`,
	'template/wrong-kind': (i, at) =>
		`Le filtre « ${i.seen} » ${at} prend : ${i.expected}. Mettez devant lui un filtre qui le donne, ou ôtez-le.`,
	'template/few-forms': (i, at) =>
		`Le pluriel ${at} a moins de formes que « ${i.seen} » n’en demande. Attendu : ${i.expected} ; la dernière vaut pour celles qui manquent.`,
	'template/unreachable': (i, at) =>
		`« ${i.seen} » ${at} n’est jamais atteint : ce qui est devant n’est jamais vide. Ôtez l’un des deux.`,
	'template/constant-optional': (_, at) =>
		`Le passage facultatif ${at} ne contient pas de variable, il s’écrit donc toujours. Ôtez les crochets.`,
	'template/double-brand': (i, at) => `Le nom du site ${at} s’écrirait deux fois : ${i.expected}. Ôtez l’un des deux.`,
	'template/idle-word': (i, at) =>
		i.seen === 'goes'
			? `« {goes …} » ${at} ne fait rien : sa place est dans un passage facultatif d’un modèle qui commence par « {fit …} ».`
			: `« {fit …} » ${at} ne fait rien : sa place est en tête d’un modèle, une fois. Déplacez-le là.`,
	'template/or-alone': (_, at) =>
		`« {or} » ${at} n’est entre rien : écrivez-le entre deux passages facultatifs, comme dans « [[ … ]] {or} [[ … ]] ».`,
	'template/prints-flag': (_, at) =>
		`Un oui ou non ${at} écrirait « true ». Demandez-le avec « ? », comme dans « [[{page.free?}Gratuit]] », ou donnez des mots à son champ.`,
	'template/piece-circle': (i, at) => `« ${i.seen} » ${at} ramène à soi, et ne donne donc rien. Ôtez-le.`,
	'template/too-many-pieces': (i, at) =>
		`Avec « ${i.seen} » ${at}, plus de ${i.expected} pièces sont dans le modèle, chacune comptée autant de fois qu’elle sert. Prenez-en moins.`,
	'rule/unknown-tag': (i) =>
		`Balise inconnue « ${i.seen} ».${didYouMean(i) || ' Prenez un nom du catalogue, ou déclarez son préfixe.'}`,
	'rule/loop': (i) => `Ces balises empruntent en rond : ${i.seen}. Donnez à l’une d’elles un modèle à elle.`,
	'rule/facts-only': (i) =>
		`« ${i.seen} » voyage avec son image et ne prend pas de règle. Réglez plutôt ${i.expected}.`,
	'rule/unknown-field': (i) => `Champ inconnu « ${i.seen} » dans une source d’image.${didYouMean(i)}`,
	'rule/not-a-picture-tag': (i) =>
		`« ${i.seen} » ne contient pas d’image et ne prend donc pas de liste de sources. Écrivez plutôt un modèle.`,
	'rule/bad-language': (i) =>
		`« ${i.seen} » n’est pas un code de langue. Écrivez-en un comme « en », « en-GB » ou « pt-BR ».`,
	'rule/bad-value': (i) => `« ${i.seen} » n’est pas ce qu’il faut : ${i.expected}.${didYouMean(i)}`,
	'rule/no-prefix': (i) =>
		`Le préfixe de « ${i.seen} » n’est pas déclaré. Déclarez « ${i.expected} » avec son espace de noms au site.`,
	'rule/reserved-name': (i) =>
		`« ${i.seen} » mettrait une seconde balise à côté de la vraie. Réglez plutôt ${i.expected}.`,
	'rule/double': (i) =>
		`Il y a deux règles pour « ${i.seen} »${i.expected ? ` en ${i.expected}` : ''} ; seule la première sert. Ôtez-en une.`,
	'rule/extra-markup': (i, at) =>
		`Le code en plus contient ${i.seen} ${at}, qu’un en-tête ne peut contenir. ${i.expected}`
};

export const issues: IssueWords = { at, says };
