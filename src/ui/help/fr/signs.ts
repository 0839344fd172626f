import type { SignWords } from '../signs';

/** What signs stand for, in French. */
export const signs: SignWords = {
	page: {
		name: 'Plein : cette page le dit',
		says: [
			'La valeur a été écrite pour cette page seule.',
			'Ce que dit une page passe devant son type, le site et ce qui est d’origine.',
			'Vidée, la couche suivante en dessous décide de nouveau.'
		],
		example: 'Un titre écrit pour la page d’accueil, pendant que les autres suivent leurs types'
	},
	type: {
		name: 'Hachuré : son type le dit',
		says: [
			'Une règle du type de la page a fait la valeur.',
			'Elle vaut pour chaque page de ce type qui ne dit rien elle-même.',
			'Une modification là les change toutes ; combien, c’est dit avant de la garder.'
		],
		example: '{page.title}, une balade de {page.distance} km, pour toutes les balades'
	},
	site: {
		name: 'Pointillé : le site le dit',
		says: [
			'Une règle de tout le site a fait la valeur.',
			'Elle vaut partout où ni la page ni son type ne disent rien.',
			'C’est la place de ce qui est pareil partout.'
		],
		example: 'og:site_name, ou l’image de partage là où une page n’en a pas'
	},
	'built-in': {
		name: 'Ouvert : d’origine',
		says: [
			'Aucune règle ne dit rien, Kephalon fait donc ce que veut presque chaque site.',
			'Le titre est celui de la page, og:url son adresse, l’image la première qui convient.',
			'Toute règle, si petite soit-elle, passe devant.'
		],
		example: 'og:title est le titre de la page, sans que personne l’ait dit'
	},
	found: {
		name: 'Ligné : comme trouvé dans la page',
		says: [
			'Le fichier même de la page disait cela avant que Kephalon le lise.',
			'Cela se tient à la couche de la page, sous ce qui a été écrit ici, et est gardé tel quel.',
			'On peut le reprendre comme règle, ou le mettre de côté.'
		],
		example: 'Une description qu’un auteur a écrite à la main dans le fichier'
	},
	pennant: {
		name: 'Le fanion : personne ne le voit encore',
		says: [
			'Ce qui est gardé diffère de ce qui a été publié.',
			'Visiteurs et lecteurs reçoivent la dernière publication jusqu’à la suivante.',
			'Publier sort tout ce qui diffère, ou une page seule.'
		],
		example: 'publié : « Balades », pendant que l’en-tête ici dit « Balades d’automne »'
	},
	gap: {
		name: 'Une boîte en tirets : un trou',
		says: [
			'Une variable du modèle est vide sur cette page.',
			'Ce qui l’entoure s’écrit quand même, et montre le trou.',
			'Mettez les deux entre [[ … ]], et ils partent ensemble.'
		],
		example: '{page.title} à ▢ → {page.title}[[ à {page.region}]]'
	},
	cut: {
		name: 'Un bord en tirets dans un texte : coupé là',
		says: [
			'Un lecteur montre le texte jusqu’ici.',
			'Ce qui suit est barré, pour qu’on voie ce qui se perd.',
			'Chaque lecteur a ses limites, par caractères ou par largeur.'
		],
		example: '« Une balade le long des falaises jusqu’au vieux ¦phare, deux heures »'
	},
	pin: {
		name: 'Épinglé',
		says: [
			'Quelqu’un tient ce que donne la balise pour une promesse.',
			'Une modification qui la changerait le dit avant d’être gardée.',
			'Une épingle rompue est un constat jusqu’à être corrigée ou épinglée de nouveau.'
		],
		example: 'Le titre de la page que cite une annonce'
	}
};
