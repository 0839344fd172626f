import type { PEOPLE } from '../people';
import type { InFrench } from '../inFrench';

export const people: InFrench<typeof PEOPLE> = {
	'not-signed-in': () => 'Connectez-vous d’abord.',
	'site-private': ({ site }) =>
		`« ${site} » est privé : ses en-têtes vont à qui y a un rôle, et aux clés qui peuvent lire. Envoyez-en une comme « Authorization: Bearer kephalon_… ». Celle qui a été envoyée a pris fin, ou sert à autre chose.`,
	'sign-in-wrong': () => 'Le nom ou le mot de passe n’est pas juste.',
	'sign-in-wait': ({ seconds }) => `Cela a échoué trop souvent. Réessayez dans ${seconds} secondes.`,
	'too-much-at-once': ({ most }) => `${most} de vos demandes sont en cours. Attendez que l’une soit finie.`,
	'too-many-requests': () => 'Trop de demandes de votre adresse. Réessayez dans une seconde.',
	'not-allowed': ({ what, site, who }) => `Vous ne pouvez pas faire cela sur ${site} (${what}). ${who}`,
	'not-allowed-anywhere': ({ who }) => `Seul un propriétaire de tous les sites peut faire cela. ${who}`,
	'setup-of-others': () =>
		'Seul un propriétaire de tous les sites en crée un nouveau, et seuls ses concepteurs lisent du contenu dans un qui est là.',
	'beyond-area': ({ pages, first, who }) =>
		`Cela dépasse votre domaine : ${pages === 1 ? 'une page se trouve' : `${pages} pages se trouvent`} en dehors, comme ${first}. Rien n’a été changé. ${who}`,
	'release-beyond-area': ({ first, who }) =>
		`Vous publiez les pages de votre domaine, une par une : ${first} sortirait avec elles. Rien n’a été publié. ${who}`,
	'beyond-role': ({ what, who }) =>
		`Cela changerait ce que vous ne pouvez pas changer (${what}). Rien n’a été changé. ${who}`,
	'password-length': ({ least, most }) =>
		`Un mot de passe a de ${least} à ${most} caractères ; plusieurs mots se retiennent facilement.`,
	'password-common': () =>
		'Beaucoup de gens ont ce mot de passe : il est parmi les premiers essayés. Prenez-en un autre.',
	'password-name': () => 'Le mot de passe ressemble au nom. Prenez-en un autre.',
	'password-old-wrong': () => 'L’ancien mot de passe n’est pas juste.',
	'passkey-needs-name': ({ host }) =>
		`Une clé d’accès est liée à un nom, et ${host} est une adresse. Ouvrez Kephalon sous son nom, sur cette machine http://localhost.`,
	'passkey-late': () => 'Cela a duré trop longtemps, ou a déjà reçu une réponse. Réessayez.',
	'passkey-wrong': () => 'Cette clé d’accès n’ouvre rien ici.',
	'passkey-missing': () => 'Il n’y a pas de telle clé d’accès à vous.',
	'passkeys-many': ({ most }) => `Vous avez ${most} clés d’accès. Retirez-en une dont vous ne vous servez pas.`,
	'sign-on-none': () =>
		'Il n’y a pas de connexion unique ici. Le serveur se lance pour cela avec « --sign-on <fichier> ».',
	'sign-on-file': ({ file, why }) =>
		`${file} ne dit pas comment se connecter : ${why}. C’est du JSON avec issuer, clientId, name et rules ; docs/people.md en montre un.`,
	'sign-on-failed': ({ issuer, why }) =>
		`La connexion par ${issuer} n’a pas marché (${why}). Réessayez, ou connectez-vous autrement.`,
	'sign-on-late': () => 'La connexion a duré trop longtemps, ou a commencé ailleurs. Réessayez.',
	'sign-on-nobody': () =>
		'Vous y êtes connu, mais rien ne vous est ouvert ici. Qui s’occupe de ce Kephalon dit ce que vous pouvez faire.',
	'sign-on-name': ({ name }) =>
		`Quelqu’un s’appelle déjà « ${name} » ici. Si c’est vous : connectez-vous comme avant, et liez le compte sous « Votre compte ».`,
	'sign-on-other': ({ name }) => `Ce compte est lié à ${name}.`,
	'recovery-wrong': () => 'Le nom ou le code n’est pas juste. Chaque code sert une fois.',
	'mail-none': () =>
		'Aucun serveur de mail n’est réglé : remettez le lien, ou lancez le serveur avec KEPHALON_SMTP et KEPHALON_MAIL_FROM.',
	'mail-address-broken': ({ address }) => `« ${address} » n’est pas une adresse mail.`,
	'mail-failed': ({ to, why }) => `Le mail à ${to} n’est pas parti : ${why}. Remettez le lien.`,
	'invitation-over': () =>
		'Cette invitation a été prise ou a expiré. Demandez-en une nouvelle : « kephalon people reset » la fait.',
	'person-name-broken': () =>
		'Le nom d’une personne commence par une lettre ou un chiffre, et a jusqu’à 80 lettres, chiffres, espaces et signes comme . et -.',
	'person-missing': ({ name }) => `Personne ne s’appelle « ${name} ».`,
	'person-there': ({ name }) => `Quelqu’un s’appelle déjà « ${name} ».`,
	'owner-last': ({ name }) =>
		`${name} est le dernier propriétaire de tous les sites. Faites d’abord de quelqu’un d’autre un propriétaire.`,
	'role-unknown': ({ role, roles }) => `« ${role} » n’est pas un rôle. Les rôles sont ${roles.join(', ')}.`,
	'area-path-broken': ({ path }) =>
		`« ${path} » n’est pas un motif de chemins : il commence par / ou *, et * vaut pour n’importe quels caractères.`,
	'area-for-role': ({ role }) => `Seuls les rédacteurs et les concepteurs ont des domaines, pas « ${role} ».`,
	'key-name-broken': () => 'Il faut à une clé un nom de 80 caractères au plus, auquel on la reconnaît.',
	'key-scopes': ({ scopes }) => `Une clé dit à quoi elle sert : un ou plusieurs de ${scopes.join(', ')}.`,
	'key-end-broken': () => 'La fin d’une clé est une date à venir, comme 2027-01-31.',
	'key-missing': () => 'Il n’y a pas de telle clé sur ce site.',
	'hook-inside': () => 'Qu’une adresse puisse se trouver dans un réseau, c’est un propriétaire de tout qui le dit.',
	'hook-address': ({ address, why }) =>
		`Rien n’est envoyé à ${address} (${why}). Un propriétaire de tout peut dire qu’elle peut se trouver dans un réseau.`,
	'hook-events': ({ events }) => `Une adresse est prévenue de quelque chose : un ou plusieurs de ${events.join(', ')}.`,
	'hook-many': ({ most }) => `Un site prévient au plus ${most} adresses.`,
	'hook-missing': () => 'Il n’y a pas de telle adresse prévenue.',
	'hook-message-missing': () => 'Il n’y a pas de tel message : les 200 plus récents d’une adresse sont gardés.',
	'panel-origin-broken': ({ origin }) =>
		`« ${origin} » n’est pas une origine. Elle n’a pas de chemin, et un port seulement s’il n’est pas l’habituel : https://editor.example.`,
	'panel-origins-many': ({ most }) => `Un site nomme au plus ${most} origines.`,
	'panel-person': ({ name }) =>
		name === ''
			? 'Pour qui est le volet se dit avec « person », par le nom que la personne a ici.'
			: `Personne ne s’appelle « ${name} » sur ce site et peut entrer.`,
	'panel-page': () => 'À quelle page le volet est laissé entrer se dit avec « page », par son chemin.',
	'key-without-panel': () => 'Cette clé ne laisse entrer personne dans le volet : une avec « panel » le fait.',
	'panel-alone': () => 'Personne n’a à être laissé entrer ici : sans personnes, qui est à cette machine le peut.',
	'not-in-panel': () => 'Cela ne se fait pas depuis un volet. Faites-le dans Kephalon.',
	'days-broken': ({ days }) => `« ${days} » n’est pas un nombre de jours. Dites-en un à partir de 1, ou all.`,
	'trail-broken': ({ lines, broken }) =>
		`Le registre tient pour ses ${lines} premières lignes ; la ligne ${broken}, ou une avant elle, a été changée ou ôtée.`,
	'address-open': ({ host }) =>
		`Sur ${host} d’autres pourraient entrer. Ajoutez d’abord une personne (« kephalon people add »), et dites avec --origin sous quelle adresse on atteint Kephalon.`,
	'cert-and-key': () => 'Un certificat va avec sa clé : dites les deux, --cert et --key.',
	'origin-broken': ({ origin }) => `« ${origin} » n’est pas une adresse comme https://heads.example.`
};
