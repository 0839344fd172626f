import type { SETTINGS } from '../settings';

/** What settings do, in French. */
export const settings: typeof SETTINGS = {
	Name: [
		'Comment s’appelle le site.',
		'Les modèles le mettent par {site.name}, et og:site_name le dit.',
		'Un autre nom change chaque en-tête qui l’a ; combien, c’est dit avant.',
		'Merrow Coast Reserves'
	],
	'Public base address': [
		'Où se trouve le site sur le net : toutes les adresses des en-têtes commencent par elle.',
		'Les lecteurs y prennent pages et images ; elle doit donc être publique, au mieux avec TLS.',
		'Une adresse de votre propre machine marche pour vous et pour personne d’autre.',
		'https://www.merrow.example/'
	],
	Languages: [
		'Les langues dans lesquelles sont les pages, la première étant celle où toutes se rabattent.',
		'Mots, modèles et pluriels peuvent être dits pour chacune.',
		'Une page dit dans laquelle elle est ; alternate relie ses versions.',
		'en, fr'
	],
	'Time zone': [
		'L’horloge selon laquelle s’entendent les dates sans décalage.',
		'Un modèle qui écrit une heure l’écrit selon cette horloge.',
		'Sans elle c’est UTC, à une heure ou plus de la plupart.',
		'Europe/Paris'
	],
	Private: [
		'Personne sans droit n’y reçoit en-têtes, images ou plan du site.',
		'Chaque en-tête dit noindex dès la prochaine publication.',
		'C’est pour des sites qui ne sont pas encore publics, ou ne le seront jamais.',
		'Une répétition du nouveau site'
	],
	'Editors release': [
		'Là où il y a des personnes, seuls propriétaires et concepteurs publient.',
		'Avec ceci, les rédacteurs aussi : ceux qui ont un domaine, ce qui s’y trouve.',
		'Relecteurs et lecteurs jamais.',
		'Deux rédactrices qui publient seules les nouvelles'
	],
	'Releases kept': [
		'Autant de publications récentes peuvent être regardées et reprises.',
		'Les plus anciennes partent avec la prochaine, pour de bon.',
		'Sans nombre toutes sont gardées, ce qui prend de la place pour chaque en-tête changé.',
		'30'
	],
	Separator: [
		'Ce qui se tient entre les parties d’un titre.',
		'Les modèles le mettent par {separator} ; dit ici, il est partout le même.',
		'Un point ou un tiret prend moins de largeur qu’une barre avec des espaces.',
		'Balades · Merrow'
	],
	Publisher: [
		'Qui est derrière le site.',
		'Modèles et images de partage le mettent par {site.publisher}.',
		'Ce peut être le même que le nom.',
		'Merrow Coast Trust'
	],
	Account: [
		'Le compte que les balises de carte Twitter nomment comme celui du site.',
		'Chaque page le dit dans twitter:site.',
		'Il s’écrit avec ou sans @.',
		'@merrowcoast'
	],
	'Author of pages that name none': [
		'Les pages qui disent qui les a écrites le gardent.',
		'Sur toutes les autres, la balise author dit ceci.',
		'Sans lui, ces pages ne nomment personne.',
		'Les gardes'
	],
	'Size of cards': [
		'Les lecteurs de cartes Twitter montrent une grande image, ou une petite à côté du texte.',
		'Un type peut dire autrement.',
		'Grande convient là où les pages ont des images à elles.',
		'summary_large_image'
	],
	'Lean heads': [
		'Les balises de carte Twitter qui disent comme leur jumelle Open Graph sont omises.',
		'Les lecteurs qui les cherchent d’abord se rabattent sur les jumelles.',
		'Les en-têtes raccourcissent, et les cartes restent les mêmes.',
		'twitter:title parti, og:title là'
	],
	'Paths that robots leave alone (robots.txt)': [
		'Ce que robots.txt demande aux programmes de ne pas prendre.',
		'Ceux qui s’y tiennent ne font pas de cartes de ces pages, et n’en montrent rien.',
		'Cela ne cache rien aux gens.',
		'/drafts/'
	],
	'What one of them is called': [
		'Une page du type en mots, et plusieurs.',
		'Les salles le disent, et les modèles par {type.one} et {type.many}.',
		'Chaque langue du site a ses propres mots.',
		'une balade, des balades'
	],
	'These pages are videos': [
		'La marque de vidéo est posée sur leurs images.',
		'On voit alors ce que fait un clic.',
		'Une page peut dire autrement.',
		'Un film sur les falaises aux oiseaux'
	],
	'Kind (og:type)': [
		'Ce que og:type dit des pages de ce type.',
		'Les lecteurs d’Open Graph distinguent par lui articles, livres, morceaux et vidéos.',
		'Sans lui c’est « website » ; avec « article », dates, auteur et section sortent aussi.',
		'article'
	],
	'It stands for': [
		'Un type peut être la page d’accueil, une liste d’autres pages, ou la page de ce qui n’est pas là.',
		'D’une liste, les modèles connaissent le numéro ; la page introuvable est cachée aux recherches.',
		'La plupart des types ne représentent rien de cela.',
		'Une liste : « Balades, page 2 sur 7 »'
	],
	'Its own picture': [
		'Sert pour les pages du type qui n’en ont pas.',
		'Elle passe devant celle du site.',
		'D’autres images peuvent représenter ce que dit un champ, comme sa catégorie.',
		'Une chaussure pour les balades, une tente pour les camps'
	],
	'Switched off': [
		'Les pages du type sont omises des publications.',
		'Ce qui en est servi part avec la prochaine ; rien ne se perd ici.',
		'Combien cela retire du site est dit avant d’être gardé.',
		'Les rendez-vous de l’an dernier'
	],
	'Paths of its pages': [
		'Des pages qui ne sont nulle part ici : leurs en-têtes sont faits quand on les demande.',
		'Ce qui est entre accolades est pris du chemin et mis dans l’adresse de l’enregistrement.',
		'Un chemin qu’une page du site a passe devant.',
		'/boats/{id}'
	],
	'Address of a record': [
		'D’où viennent les données d’une telle page, en JSON.',
		'Elles sont gardées tant que la réponse le permet ; pendant que leur serveur est absent, le dernier bon en-tête sort.',
		'Dans un réseau, elle doit être nommée au démarrage du serveur.',
		'https://data.merrow.example/boats/{id}.json'
	],
	Samples: [
		'Des chemins sur lesquels s’essaient les modèles du type, comme ses pages difficiles.',
		'Prenez le nom le plus long, celui sans image, le plus étrange.',
		'Ils sont demandés quand quelqu’un regarde, et gardés nulle part.',
		'/boats/7, /boats/4711'
	],
	Path: [
		'Où se trouve la page sous l’adresse de base.',
		'Un autre chemin laisse un passage depuis l’ancien, pour que les vieux liens mènent encore ici.',
		'canonical et og:url le suivent tous deux.',
		'/walks/old-light'
	],
	Type: [
		'De quelle sorte est la page.',
		'Son type dit quels champs elle a et ce que dit son en-tête par défaut.',
		'Avec un autre type, ses propres règles restent.',
		'balade'
	],
	'Mark for video': [
		'La marque est posée sur les images de cette page, ou non.',
		'Laissée, son type décide.',
		'Elle est dessinée dans l’image de partage.',
		'Une balade qui est un film'
	],
	State: [
		'Une page en ligne est publiée, un brouillon pas encore, une privée jamais.',
		'Ce qui redevient brouillon quitte le site avec la prochaine publication.',
		'Ses règles et ses champs restent.',
		'brouillon jusqu’au jour d’ouverture'
	],
	'Hidden from search': [
		'Son en-tête dit noindex : la recherche l’omet de ses listes.',
		'On en fait des cartes quand même.',
		'Elle n’est dans aucun plan du site.',
		'Une page de merci après un formulaire'
	],
	'Key page': [
		'Une des pages qui comptent le plus.',
		'Elles sont vérifiées d’abord, et une publication dit quand l’une serait partagée vide.',
		'Un site en a une poignée.',
		'L’accueil, les prix, le chemin pour venir'
	],
	'Target phrase': [
		'Ce par quoi on devrait trouver la page.',
		'Titre et description sont vérifiés avec elle ; rien n’est écrit par elle.',
		'Deux pages pour une expression se gênent.',
		'balades de falaise avec enfants'
	]
};
