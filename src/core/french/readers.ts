import type { ReaderWords } from '../readers/habits';

/** What readers are, and how they go about it, in French. */
const kinds: ReaderWords['kinds'] = {
	gangway: 'un fil à cartes larges',
	fathom: 'une liste de recherche sur un écran large',
	'fathom-narrow': 'la même sur un écran étroit',
	headland: 'un fil qui lit d’abord les balises de carte Twitter',
	ropewalk: 'un réseau professionnel',
	galley: 'une messagerie d’équipe avec icône et paires',
	bottle: 'une messagerie à petites images carrées',
	wrack: 'un tableau d’images qui les veut toutes hautes',
	porthole: 'un onglet de navigateur',
	logbook: 'un carnet partagé qui demande oEmbed',
	almanac: 'une liste de lecture qui prend d’abord JSON-LD et itemprop',
	flotsam: 'un forum qui prend ce qui est sur la page là où les balises ne disent rien',
	semaphore: 'une messagerie dont l’expéditeur fait la carte et la transmet'
};

const many = (count: number, one: string, more = `${one}s`) =>
	`${count.toLocaleString('fr')} ${count < 2 ? one : more}`;
const during = (hours: number) =>
	hours === Infinity || hours > 24 * 365 * 50
		? 'pour toujours'
		: hours % 24 === 0
			? `pendant ${many(hours / 24, 'jour')}`
			: `pendant ${many(hours, 'heure')}`;
const AGAIN: Readonly<Record<string, string>> = {
	asked: 'Quand on le lui dit, il prend la page de nouveau.',
	address: 'Une autre adresse, comme avec une requête derrière, est prise de nouveau.',
	never: 'Rien ne la lui fait prendre de nouveau avant.'
};
const OTHERWISE = {
	none: 'Sans image, sa carte reste vide.',
	first: 'Sans image, il prend la première de la page.',
	chance: 'Sans image, il en prend une de la page, au hasard.'
};
const ANIMATED = {
	moves: 'Une image qui bouge est montrée en mouvement.',
	still: 'D’une image qui bouge, il montre la première vue.',
	none: 'Il ne montre aucune image qui bouge.'
};

const habits: ReaderWords['habits'] = ({ habits: its, frame }, passed) => [
	its.obeysRobots ? 'Il respecte robots.txt.' : 'Il ne demande pas robots.txt.',
	`Il demande ${its.accepts}${its.languages === '' ? '' : `, en ${its.languages}`}.`,
	`Il suit ${many(its.redirects, 'redirection')}${passed.length > 0 ? ` (aucune de ${passed.join(', ')})` : ''}${its.otherHosts ? '' : ', mais pas vers un autre hôte'}${its.refreshes ? ', aussi celles d’un refresh dans la page' : ''}.`,
	its.cookies ? 'Il garde des cookies en chemin.' : 'Il ne garde pas de cookies.',
	`Il lit les ${Math.round(its.bytes / 1000).toLocaleString('fr')} premiers ko${its.counts === 'packed' ? ' tels qu’ils viennent, comprimés' : ''}, et attend ${many(its.patience / 1000, 'seconde')}.`,
	its.unfinished === 'card'
		? 'D’une page qui s’interrompt, il prend ce qui est venu.'
		: 'D’une page qui s’interrompt, il ne fait pas de carte.',
	its.readsBody ? 'Il prend les balises qui se trouvent sous l’en-tête.' : 'Il ne prend aucune balise sous l’en-tête.',
	its.relative === 'resolves'
		? 'Il complète les adresses relatives.'
		: 'Il ne tient pas une adresse relative pour une adresse.',
	`D’une balise qui se trouve deux fois, il prend ${its.doubled === 'first' ? 'la première' : 'la dernière'}.`,
	...(frame
		? [
				frame.judges === 'fetch'
					? 'Il va chercher l’image et juge ce qu’il reçoit.'
					: 'Il croit ce que les balises disent de l’image.',
				frame.failing === 'next'
					? 'Là où sa première image ne peut pas être montrée, il prend la suivante.'
					: 'Là où sa première image ne peut pas être montrée, sa carte reste vide.',
				OTHERWISE[frame.otherwise],
				ANIMATED[frame.animated]
			]
		: ['Il ne montre pas d’image.']),
	...(its.keeps
		? [
				`Il garde une carte ${during(its.keeps.hours)}, sous ${its.keeps.under === 'address' ? 'l’adresse collée' : `ce que dit ${its.keeps.under}`}${its.keeps.failed > 0 ? ` ; qu’il n’y en avait pas, ${during(its.keeps.failed)}` : ''}.`,
				AGAIN[its.keeps.again] ?? ''
			]
		: ['Il ne garde pas de carte.']),
	'Il n’exécute pas de scripts.'
];

export const readers: ReaderWords = { kinds, habits };
