import { ownOf } from '../own';
import type { ReasonWords } from '../readers/reasons';

const WHAT: Readonly<Record<string, string>> = {
	download: 'un fichier à télécharger',
	'gzip-unannounced': 'du gzip qui n’est pas annoncé',
	'zstd-unannounced': 'du zstd qui n’est pas annoncé',
	empty: 'vide',
	'no-picture': 'autre chose qu’une image',
	picture: 'une image'
};

const ENDS: Readonly<Record<string, string>> = {
	refused: 'elle ne peut pas être demandée',
	'unknown-name': 'il n’y a pas de tel hôte',
	'no-connection': 'rien n’y répond',
	certificate: 'son certificat ne vaut pas',
	'unknown-packing': 'elle est comprimée d’une façon que personne n’a demandée',
	reset: 'la connexion a été rompue',
	malformed: 'sa réponse n’est pas du HTTP qui se lise',
	timeout: 'elle ne répond pas à temps',
	short: 'elle finit au milieu',
	'bad-compression': 'elle n’est pas comprimée comme elle le dit',
	loop: 'ses redirections tournent en rond',
	'too-many-redirects': 'elle redirige trop souvent'
};
/** States of a page that nobody sees. */
const STATES: Readonly<Record<string, string>> = { draft: 'un brouillon', private: 'privée' };
const ROBOTS = {
	late: 'n’arrive pas à temps',
	'broken-off': 's’interrompt en chemin',
	'no-answer': 'ne peut pas être atteint'
} as const;

export const megabytes = (bytes: number) =>
	`${(bytes / 1_000_000).toLocaleString('fr', { minimumFractionDigits: 1, maximumFractionDigits: 1 })} Mo`;

/** Why a reader has no page, no picture, or a small card, in French; what a page is said of is “elle”. */
export const reasons: ReasonWords = {
	noPage: (why) => {
		if (why.is === 'other') return reasons.what(why.what);
		if (why.is === 'answers')
			return `son serveur répond ${why.status}${why.isUnfollowed ? ', ce qu’il ne suit pas' : ''}`;
		const { end, more } = why;
		const ended = ownOf(ENDS, end);
		return ended === undefined ? (more ?? end) : `${ended}${more ? ` (${more})` : ''}`;
	},
	robotsFailed: (how) => (how.is === 'answers' ? `répond ${how.status}` : ROBOTS[how.is]),
	noPicture: (why) => {
		switch (why.is) {
			case 'ended':
				return `ne peut pas être obtenue : ${ownOf(ENDS, why.end) ?? why.more ?? why.end}`;
			case 'answers':
				return `ne peut pas être obtenue : son serveur répond ${why.status}`;
			case 'shut':
				return 'est interdite par le robots.txt de son hôte';
			case 'empty':
				return 'est vide';
			case 'cut-short':
				return 'finit au milieu';
			case 'moves':
				return 'bouge, et il n’en montre aucune qui bouge';
			case 'no-picture':
				return why.but === undefined ? 'n’est pas une image' : `n’est pas une image, mais ${reasons.what(why.but)}`;
			case 'scheme':
				return `est une adresse en ${why.scheme}:, que personne ne va chercher`;
			case 'too-large':
				return `pèse plus de ${why.megabytes} Mo`;
			case 'form':
				return `est en ${why.form}, qu’il ne sait pas lire`;
			case 'heavy':
				return `pèse ${megabytes(why.bytes)}, et il en prend ${megabytes(why.most)} au plus`;
			case 'mark':
				return `fait ${why.width} × ${why.height} : une marque, et non une image`;
		}
	},
	smallCard: (why) =>
		why.is === 'chooses'
			? `${why.by} ${why.says === undefined ? 'ne dit rien' : `dit ${why.says}`}`
			: `l’image a ${why.width} pixels de large ; à partir de ${why.least}, elle remplirait la carte`,
	noPlace: (why) => {
		switch (why.is) {
			case 'no-page':
				return `n’est pas une page${why.of ? ` du ${why.of === 'site' ? 'site' : 'dossier'}` : ''}`;
			case 'not-public':
				return 'n’est pas publique';
			case 'type-off':
				return 'est d’un type qui est coupé';
			case 'itself':
				return 'est la page même';
			case 'state':
				return `est ${ownOf(STATES, why.state) ?? why.state}`;
			case 'elsewhere':
				return `dit elle-même qu’elle se trouve à ${why.at}`;
		}
	},
	drift: (why, by) => {
		const as = by === undefined ? '' : `, telle que ${by} la lit`;
		switch (why.is) {
			case 'page':
				return reasons.noPage(why.why) + as;
			case 'shut':
				return `robots.txt ${why.robots ? reasons.robotsFailed(why.robots) : 'l’interdit'}${as}`;
			case 'none':
				return `aucune de ses balises n’est servie${as}`;
			case 'tags':
				return `${why.tags.join(', ')}${why.since === undefined ? '' : ` : comme à partir de la version ${why.since}`}${as}`;
			case 'says':
				return why.said + as;
			case 'picture':
				return `${why.tag} : ${why.address} ${reasons.noPicture(why.why)}${as}`;
		}
	},
	what: (is) => ownOf(WHAT, is) ?? is
};
