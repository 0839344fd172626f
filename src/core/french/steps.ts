import { ownOf } from '../own';
import type { StepWords } from '../resolve/describe';

/** How a value came about, step by step, in French. */

const BUILT_IN: Readonly<Record<string, string>> = {
	'page-title': 'le titre de la page',
	'site-name': 'le nom du site',
	path: 'le chemin',
	'page-summary': 'le résumé de la page',
	'body-opening': 'les premières phrases du corps',
	'page-author': 'l’auteur de la page',
	'page-address': 'l’adresse de la page',
	hidden: 'cachée aux recherches',
	'private-site': 'le site est privé',
	'other-versions': 'la page dans ses autres langues',
	'site-icon': 'l’icône du site',
	'square-icon': 'l’icône du site, si elle est carrée',
	'icon-manifest': 'fait de l’icône du site, si elle est carrée',
	'type-kind': 'la sorte que déclare son type',
	'page-language': 'la langue de la page',
	'other-languages': 'ses autres langues',
	'page-pictures': 'l’image principale, la première du corps, celle du type, celle du site',
	'page-published': 'quand la page a été publiée',
	'page-modified': 'quand la page a changé pour la dernière fois',
	'author-address': 'l’adresse de l’auteur de la page',
	'page-section': 'la section de la page',
	'page-tags': 'les mots de la page',
	'picture-size': 'grande quand l’image est assez large et haute',
	'site-handle': 'le compte du site',
	'author-handle': 'le compte de l’auteur de la page',
	'picture-alt': 'le texte alternatif de l’image retenue'
};
const LAYERS = { page: 'la page', type: 'son type', site: 'le site', 'built-in': 'l’origine' } as const;

const layer: StepWords['layer'] = (one) => LAYERS[one];
const builtIn: StepWords['builtIn'] = (name, from) =>
	name === 'borrow' ? `ce que donne ${from}` : (ownOf(BUILT_IN, name) ?? name);

const rule: StepWords['rule'] = (one, cut) => {
	const shapes = cut === '' ? '' : `, découpé en ${cut}`;
	switch (one.kind) {
		case 'borrow':
			return `ce que donne ${one.from}${shapes}`;
		case 'leaveOut':
			return 'l’omettre';
		case 'pictures':
			return `la première image qui convient de : ${one.sources.map((source) => (source.from === 'file' ? source.src : source.from === 'field' ? source.name : source.from)).join(', ')}${shapes}`;
		case 'found':
			return `comme trouvé dans la page : ${one.value}`;
		case 'template':
			return one.template;
		case 'built-in':
			return builtIn(one.name, one.name === 'borrow' ? (one.from ?? '') : '');
	}
};

const outcome: StepWords['outcome'] = (one, issue) => {
	switch (one.kind) {
		case 'won':
			return 'pris';
		case 'empty':
			return one.variables.length > 0
				? `n’a rien donné : ${one.variables.join(', ')} ${one.variables.length === 1 ? 'est vide' : 'sont vides'}`
				: 'n’a rien donné';
		case 'borrowed-nothing':
			return `${one.from} n’a rien donné`;
		case 'left-out':
			return 'omis ici : la recherche finit';
		case 'loop':
			return `passé : emprunte en rond, ${one.tags.join(' → ')}`;
		case 'illegal':
			return `passé : « ${one.value} » n’est pas ce qu’il faut (${one.expected})`;
		case 'too-long':
			return `passé : ${one.length} caractères sont trop pour une balise`;
		case 'broken':
		case 'cannot-run':
			return `passé : ${issue}`;
		case 'failed':
			return 'passé : ce n’est pas une règle qui peut être lue';
		case 'frame':
			return `passé : cela se trouve sur ${one.pages} pages, donc fait partie du cadre`;
		case 'repeats-title':
			return 'passé : cela ne fait que redire le titre';
		case 'set-aside':
			return `mis de côté : ${layer(one.layer)} dit de ne pas prendre les valeurs trouvées`;
		case 'no-picture':
			return one.skipped.length > 0
				? `aucune image ne convient : ${one.skipped.map(skipped).join(' ; ')}`
				: 'pas d’image';
		case 'not-reached':
			return 'pas nécessaire';
	}
};

const skipped: StepWords['skipped'] = (one) => {
	if (one.why === 'missing') return `${one.source} : aucune`;
	if (one.why === 'no-layout') return `${one.source} : son type n’a pas de mise en page pour les images de partage`;
	const { picture, limit } = one;
	const size = `${picture.width} × ${picture.height}`;
	const reasons = {
		'not-http': 'son adresse n’est pas http ou https',
		drawing: 'un dessin vectoriel, que les lecteurs de liens ne montrent pas',
		repeated: `se trouve sur ${limit} pages, donc fait partie du cadre`,
		mark: 'un logo ou une icône',
		'too-narrow': `${size} pixels, plus étroite que ${limit}`,
		'too-low': `${size} pixels, plus basse que ${limit}`,
		'wrong-shape': `${size} pixels, pas du format demandé`
	} as const;
	return `${one.source} : ${picture.src} (${reasons[one.why]})`;
};

export const steps: StepWords = { layer, builtIn, rule, outcome, skipped };
