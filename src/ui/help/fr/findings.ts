import type { FINDINGS } from '../findings';

/** Why findings matter, and what they look like, in French. */
export const findings: typeof FINDINGS = {
	'local-address': [
		'Un lecteur prend ses pages sur le net : une adresse de sa propre machine ne le mène nulle part, et il n’y a pas de carte.',
		'http://localhost:8080/walks → https://www.merrow.example/walks'
	],
	'no-picture': [
		'On regarde d’abord l’image ; une carte sans image est une ligne de texte parmi des images.',
		'og:image au site : /pictures/share.jpg'
	],
	'pin-broken': [
		'Quelqu’un a dit que cette balise doit rester ; une modification ailleurs, à un type ou au site, l’a changée depuis.',
		'title épinglé à « Balades à marée basse », maintenant « Balades à marée basse · Merrow »'
	],
	'lost-reference': [
		'Par un champ qui nomme une page, une page dit quelque chose d’une autre ; là où il n’y en a pas, les modèles n’obtiennent rien.',
		'{page.area.title} avec « area » qui nomme /areas/gone'
	],
	'heads-circle': [
		'Chaque page attend ce que dit l’autre, et aucune ne le dit d’elle-même.',
		'/a dit {page.next.head.title}, et /b dit {page.next.head.title}, chacune nommant l’autre'
	],
	'unknown-choice': [
		'Des mots sont dits pour les valeurs que connaît le type ; une autre sortirait telle qu’elle est dans les données.',
		'state « opn », là où le champ connaît open et closed'
	],
	'no-title': [
		'Listes et onglets montrent alors l’adresse, ou des mots que le lecteur tire de la page.',
		'{page.title} {separator} {site.name}'
	],
	gap: [
		'Une variable vide laisse derrière elle ce qui l’entoure : deux espaces, un tiret seul, des parenthèses vides.',
		'{page.title} à {page.region} → {page.title}[[ à {page.region}]]'
	],
	'name-twice': [
		'Les mêmes mots deux fois coûtent la place dont le titre a besoin, et semblent une erreur.',
		'Balades · Merrow · Merrow'
	],
	'bare-title': [
		'La page d’accueil est la plus partagée : « Accueil » ne dit pas de qui.',
		'Accueil → {site.name}[[ : {site.tagline}]]'
	],
	'no-description': [
		'Les lecteurs prennent alors n’importe quels mots de la page, souvent ceux d’un menu, ou laissent la ligne vide.',
		'{page.summary ?? page.body | clip 140}'
	],
	'share-letters': [
		'Les lettres qu’aucune police n’a sont dessinées en boîtes vides, et le restent dans chaque copie de l’image.',
		'Un titre en lettres géorgiennes avec des polices latines et grecques'
	],
	'share-contrast': [
		'Sur une petite carte, au soleil, des mots qui se détachent à peine ne sont pas lus.',
		'Blanc sur ciel pâle : 1,6 contre 1 ; avec une teinte de 60 % : 5 contre 1'
	],
	'logo-picture': [
		'Un logo dit qui parle et rien de ce dont traite la page ; découpé au format d’une carte, il est souvent tranché.',
		'/logo.svg → l’image principale, puis le logo'
	],
	'small-picture': [
		'Une image trop petite est montrée en timbre à côté du texte, ou agrandie jusqu’au flou.',
		'320 × 168 pixels là où 600 remplissent la carte'
	],
	cut: [
		'Ce qui est coupé est ce qui vient en dernier, souvent le mot qui compte.',
		'« Une balade le long des falaises du cap Merrow au vieux… »'
	],
	short: [
		'Une ligne qui pourrait dire pourquoi venir ne dit presque rien.',
		'« Balade » → « Balade au vieux phare, deux heures »'
	],
	'passed-over': [
		'Les lecteurs qui prennent d’abord cette balise la montrent, et pas ce qui a été écrit avec soin pour l’autre.',
		'og:title « Balades d’automne », twitter:title encore « Balades »'
	],
	'dropped-attribute': [
		'Ce que disait le fichier même avec la balise se perd en route, le plus souvent sans mal.',
		'<link rel="icon" onload="…">'
	],
	empty: [
		'Une règle est là et n’a rien à dire sur cette page : la balise est omise.',
		'{page.subtitle} sur une page sans sous-titre'
	],
	'picture-small': [
		'Les lecteurs passent les petites images, ou les montrent en timbre.',
		'300 pixels de large, 1200 iraient pour tous'
	],
	'picture-heavy': [
		'Au-delà de sa limite un lecteur cesse de prendre et ne montre pas d’image.',
		'9 Mo, là où 5 Mo sont pris'
	],
	'picture-tall': [
		'Les cartes larges en montrent une bande ; ce qui compte peut être en dehors.',
		'1000 × 3000, montrée en 1000 × 524'
	],
	'picture-long': [
		'Les cartes montrent son milieu ; ce qui est sur les côtés se perd.',
		'4000 × 600, montrée en 1146 × 600'
	],
	'picture-face-cut': ['Un visage tranché est la première chose que l’on voit.', 'Le point monté d’un dixième'],
	'picture-text-cut': [
		'Une demi-ligne de lettres ne se lit pas, et semble cassée.',
		'« Portes ou » de « Portes ouvertes »'
	],
	'picture-much-text': [
		'Sur une petite carte ses lettres sont plus petites que celles d’une note.',
		'Une affiche comme image de partage'
	],
	'picture-no-alt': [
		'Le texte alternatif sort avec l’image, pour ceux qui entendent la carte.',
		'« Deux marcheurs sur une plage de galets »'
	],
	'picture-transparent': [
		'Une marque sombre sur un lecteur sombre ne se voit pas.',
		'Un PNG détouré, sur blanc ici et sur noir là'
	],
	'picture-animated': ['Aucune carte ici ne bouge : sa première vue, souvent vide, vaut pour le tout.', 'Un GIF animé'],
	'picture-on-many': ['Une image qui représente tout ne représente rien.', 'Un port sur 240 cartes'],
	'picture-repeated': [
		'Ce que chaque page a fait partie du cadre, comme une bannière.',
		'/banner.jpg dans 312 fichiers'
	],
	'picture-named-logo': ['D’après son nom, ce n’est l’image de rien.', '/images/logo-white.png'],
	'picture-like-logo': [
		'Elle a peu de couleurs, et est petite ou détourée, comme les marques.',
		'64 × 64, trois couleurs'
	],
	'value-broken': [
		'Une valeur d’une autre forme est passée, comme si la balise n’y était pas.',
		'og:locale en-US → en_US'
	],
	'near-tag': ['Une balise presque juste n’en est pas une pour un lecteur.', 'og:titel → og:title'],
	'empty-tag': [
		'Certains lecteurs prennent le vide pour ce qui est dit, et ne se rabattent sur rien.',
		'<meta name="description" content="">'
	],
	placeholder: ['Ce qui y était avant que quelqu’un écrive est partagé tel quel.', '<title>Sans titre</title>'],
	'markup-shown': [
		'Les cartes montrent du texte simple : le code y est lettre par lettre.',
		'<title>&lt;b&gt;Balades&lt;/b&gt;</title>'
	],
	'languages-differ': [
		'Les lecteurs choisissent mots, voix et listes par langue.',
		'<html lang="en"> avec og:locale de_DE'
	],
	'thin-title': ['Dans une liste d’onglets, de résultats ou de cartes, personne ne sait où elle mène.', 'Accueil'],
	'dates-swapped': [
		'Les lecteurs qui trient par date la mettent à la mauvaise place, ou laissent les deux.',
		'publiée le 2 mai, modifiée le 1er mai'
	],
	'broken-data': ['Une virgule de trop, et rien n’en est lu.', '{"name": "Balades",}'],
	'language-broken': ['Une balise qui ne nomme aucune langue est passée.', 'hreflang="en-UK" → en-GB'],
	'insecure-address': ['Deux adresses, avec TLS et sans, comptent comme deux pages.', 'http://… → https://…'],
	'version-twice': ['Un lecteur prend l’une des deux, et personne ne sait laquelle.', 'Deux liens avec hreflang="fr"'],
	'file-missing': ['La balise ne mène à rien dès que le dossier est servi.', '<link rel="icon" href="/gone.png">'],
	'names-other': ['Une page qui dit en être une autre n’est pas montrée elle-même.', '/b avec canonical /a'],
	'names-elsewhere': [
		'Tout ce qui en est partagé compte pour le site de quelqu’un d’autre.',
		'canonical https://other.example/'
	],
	'names-differ': ['Deux réponses à une question : la recherche suit l’une, les partages l’autre.', '/a et /a/'],
	'shared-title': ['Dans une liste on ne les distingue pas.', '40 pages nommées « Balade »'],
	'shared-description': ['La recherche passe une ligne qu’elle a déjà lue.', 'La ligne même du site sur 300 pages'],
	'shared-picture': [
		'Dans un fil elles semblent une seule chose partagée encore et encore.',
		'Le défaut du type sur 120 pages'
	],
	'version-nowhere': ['Qui la suit dans l’autre langue ne trouve rien.', 'hreflang="fr" vers une page en brouillon'],
	'version-one-way': [
		'Les lecteurs ne croient des versions que si les deux pages le disent.',
		'/walks nomme /fr/balades, qui ne nomme rien'
	],
	'canonical-nowhere': [
		'Une page qui dit se trouver ailleurs, où il n’y a rien, n’est montrée nulle part.',
		'canonical /old, qui n’est plus'
	],
	'redirect-nowhere': ['Les vieux liens mènent à une erreur au lieu d’une page.', '/2019/walks mène à /walk'],
	'key-no-picture': ['Elle a été marquée comme une des pages qui comptent le plus.', 'L’accueil sur le défaut du site'],
	'words-elsewhere': ['Une phrase en deux langues semble une erreur dans les deux.', '« Read about Grève de Galets »'],
	'target-twice': [
		'Deux pages qui veulent être trouvées par une même expression se retiennent.',
		'/walks et /walks/all par « balades de falaise »'
	],
	unreachable: ['Sans réponse il n’y a pas de carte.', 'Personne n’écoute à cette adresse'],
	'leads-to-shut': [
		'L’adresse peut être prise, et là où elle mène non : il n’y a pas de carte.',
		'/a → /private/a, exclue par robots.txt'
	],
	'same-everywhere': [
		'Les lecteurs n’exécutent pas de scripts : ils voient la coquille, la même pour toutes.',
		'Chaque adresse se partage comme « App »'
	],
	'double-encoded': ['Chaque lettre hors d’ASCII en est devenue deux qui n’ont rien à y faire.', 'CafÃ© → Café'],
	'no-picture-preview': ['La recherche la montre, et retient l’image.', 'max-image-preview:none'],
	'picture-moves': [
		'Ces lecteurs n’en montrent aucune qui bouge, et n’en prennent pas d’autre à sa place.',
		'Un WebP animé'
	],
	'blocked-by-robots': ['Un lecteur qui se tient à robots.txt ne fait pas de carte.', 'User-agent: * / Disallow: /'],
	'robots-failing': [
		'Tant que robots.txt échoue, les lecteurs prudents ne prennent rien du site.',
		'robots.txt répond 503'
	],
	'leads-nowhere': ['Une redirection sans adresse ne mène à rien.', '302 sans Location'],
	'leads-on': [
		'Ces lecteurs suivent les redirections et aucun refresh : ils s’arrêtent à la page vide.',
		'<meta http-equiv="refresh" content="0;url=/b">'
	],
	'no-page': ['Les lecteurs font des cartes de HTML et de rien d’autre.', 'Content-Type: application/octet-stream'],
	'fails-for': ['Qui la partage là partage une adresse nue.', '403 pour un seul lecteur'],
	'endless-page': [
		'Les lecteurs s’arrêtent après quelques centaines de kilo-octets ou quelques mégaoctets.',
		'Une page de 24 Mo, comprimée en 30 ko'
	],
	'no-charset': [
		'Les lecteurs qui devinent peuvent se tromper, et des lettres se perdent.',
		'Content-Type: text/html; charset=utf-8'
	],
	'broken-characters': ['Là où une lettre s’est perdue se trouve un signe pour « inconnu ».', 'Caf�'],
	'template-left': ['Le modèle du serveur ou d’un script est sorti tel quel.', '{{ page.title }}'],
	'escaped-twice': ['Le second échappement est montré tel qu’il est écrit.', 'Sel &amp;amp; poivre → Sel &amp; poivre'],
	'names-home': [
		'Toutes les pages comptent comme une seule, l’accueil.',
		'og:url https://www.merrow.example/ sur chaque page'
	],
	'error-page': ['Les lecteurs ne font pas de carte d’une erreur, ou une qui dit « Introuvable ».', 'HTTP 404'],
	'not-found-served': [
		'La recherche la montre comme une page, et les cartes disent qu’elle n’est pas là.',
		'200 avec « Page introuvable »'
	],
	'sign-in-page': [
		'Aucun lecteur ne se connecte : la carte montre le formulaire.',
		'« Connectez-vous pour continuer »'
	],
	'redirected-elsewhere': ['Ces lecteurs restent sur l’hôte partagé.', 'm.merrow.example → www.merrow.example'],
	'beyond-reading': ['Ce qui vient après n’est pas là pour eux.', '600 ko de styles avant og:title'],
	'late-charset': [
		'Les lecteurs le cherchent dans les 1 024 premiers octets, et devinent sinon.',
		'<meta charset="utf-8"> en premier dans l’en-tête'
	],
	'wrong-charset': [
		'L’un des deux est faux, et les lecteurs diffèrent dans celui qu’ils croient.',
		'en-tête HTTP windows-1252, code utf-8'
	],
	'unknown-charset': ['Un nom que l’Encoding Standard n’a pas n’est pas un encodage.', 'charset=utf8mb4'],
	'picture-type': [
		'Les lecteurs prudents croient l’en-tête HTTP, et ne prennent pas une telle image.',
		'image.jpg servie comme text/plain'
	],
	'picture-apart': [
		'Leurs cartes restent vides, et personne d’autre ne voit pourquoi.',
		'403 pour les images sans Referer'
	],
	'scheme-address': ['Les lecteurs prennent par http et https.', 'og:image data:image/png;base64,…'],
	'relative-address': [
		'Open Graph demande des adresses entières ; certains lecteurs n’en complètent aucune.',
		'/a.jpg → https://www.merrow.example/a.jpg'
	],
	'local-served': ['Cela marche sur la machine où ce fut fait, et nulle part ailleurs.', 'og:url http://192.168.0.7/'],
	'missing-tag': [
		'Les lecteurs prennent le moins mauvais, que personne n’a choisi.',
		'pas de og:title : le titre avec le nom du site est montré'
	],
	'doubled-tag': ['Certains prennent la première, d’autres la dernière.', 'Deux og:title, de deux outils'],
	'noindex-served': ['Elle est prise, puis omise de chaque liste.', '<meta name="robots" content="noindex">'],
	'noindex-for': ['Ceux de ce nom l’omettent ; d’autres la montrent.', '<meta name="fathom" content="noindex">'],
	'picture-missing': ['La carte reste vide.', 'og:image répond 404'],
	'served-heavy': ['Au-delà de sa limite un lecteur s’arrête, et n’en montre aucune.', '9 Mo tout droit de l’appareil'],
	'picture-unreadable': [
		'Ce qui n’est pas une image n’est pas montré, quel que soit son nom.',
		'Une page HTML à /share.jpg'
	],
	'picture-shut': ['Ils se tiennent à robots.txt pour les images aussi.', 'Disallow: /media/'],
	'picture-form': [
		'Les lecteurs connaissent quelques formats et passent les autres.',
		'AVIF, là où JPEG et PNG sont lus'
	],
	'picture-mark': ['Une image d’un pixel compte les visites de quelqu’un ; ce n’en est pas une à montrer.', '1 × 1'],
	'served-small': ['Elle est montrée en timbre à côté du texte.', '200 × 200'],
	'picture-lies': [
		'Les lecteurs disposent la carte d’après ce que disent les balises, puis elle saute.',
		'og:image:width 1200 d’une image large de 600'
	],
	'needs-scripts': ['Les lecteurs prennent ce que le serveur envoie.', '<head></head><script src="app.js">'],
	'differs-by-reader': [
		'Ce qu’on regarde et ce que voient les autres sont deux choses.',
		'Une page courte pour des programmes, par leur nom'
	],
	'below-head': ['Les lecteurs stricts s’arrêtent où finit l’en-tête.', 'Un <div> dans l’en-tête le finit'],
	broken: ['Ce qui s’interrompt à mi-chemin n’est pas une page pour eux.', 'Content-Length 9000, 4000 octets envoyés'],
	'template/too-long': ['Pour qu’aucun modèle ne retienne un serveur.', 'Des pièces : dire une fois la part commune'],
	'template/too-deep': ['Ce qui s’emboîte plus profondément, personne ne peut le suivre.', '[[ … [[ … ]] … ]]'],
	'template/unclosed-placeholder': [
		'Sans sa fin, personne ne sait où finit la variable.',
		'{page.title → {page.title}'
	],
	'template/unclosed-optional': [
		'Sans sa fin, tout ce qui suit partirait avec.',
		'[[ à {page.region} → [[ à {page.region}]]'
	],
	'template/unclosed-string': ['Le texte irait jusqu’à la fin.', '{page.title | default "rien → "rien"'],
	'template/empty-placeholder': ['Des accolades vides ne demandent rien.', '{} → {page.title}'],
	'template/unexpected': ['On le lit depuis la gauche ; ici cela ne peut pas continuer.', '{page.title | | upper}'],
	'template/trailing-escape': ['Une barre oblique inverse vaut pour le signe qui la suit.', 'C:\\ → C:\\\\'],
	'template/stray-close': ['Il s’écrit, ce qui est rarement voulu.', '{page.title}} → {page.title}'],
	'template/unknown-root': ['Les variables commencent par ce dont elles sont.', '{titel} → {page.title}'],
	'template/unknown-variable': ['Un nom que rien n’a ne donne rien sur aucune page.', '{page.sumary} → {page.summary}'],
	'template/unknown-filter': ['Un filtre qui n’est pas là ne peut pas être appliqué.', '| uper → | upper'],
	'template/wrong-arguments': ['Il ne saurait que faire.', '| clip → | clip 60'],
	'template/wrong-kind': ['Une date n’est pas un nombre : cela ne donnerait rien.', '{page.title | date "d MMMM"}'],
	'template/few-forms': ['Certaines langues ont plus de deux formes.', 'une, peu, beaucoup en polonais'],
	'template/unreachable': ['Ce qui est devant est toujours là.', '{site.name ?? page.title}'],
	'template/constant-optional': ['Les crochets sont pour ce qui peut manquer.', '[[ et plus ]]'],
	'template/double-brand': [
		'Le nom du site s’y trouverait deux fois.',
		'{page.title} – {site.name}, là où les titres finissent par lui'
	],
	'template/idle-word': ['Il n’a de sens qu’à sa place.', '{fit 60} en tête'],
	'template/or-alone': ['Il choisit entre deux.', '[[{page.a}]] {or} [[{page.b}]]'],
	'template/prints-flag': ['« true » est pour les programmes.', '[[{page.free?}Gratuit]]'],
	'template/piece-circle': ['Chacune attend l’autre.', '{piece.a} dans b, {piece.b} dans a'],
	'template/too-many-pieces': ['Pour qu’aucun modèle ne retienne un serveur.', 'Une pièce qui se sert de dix autres'],
	'rule/unknown-tag': [
		'Les lecteurs connaissent les balises du catalogue ; d’autres demandent un vocabulaire.',
		'og:titel → og:title'
	],
	'rule/loop': ['Chacune attend l’autre.', 'og:title comme twitter:title, et l’inverse'],
	'rule/facts-only': ['C’est un fait de l’image, et il serait faux avec la suivante.', 'og:image:width'],
	'rule/unknown-field': ['Une source qui n’est pas un champ ne donne pas d’image.', 'champ « pictre » → « picture »'],
	'rule/not-a-picture-tag': [
		'Les sources donnent des images ; cette balise dit des mots.',
		'og:title à partir de l’image principale'
	],
	'rule/bad-language': ['Les règles pour une langue se trouvent par son code.', 'english → en'],
	'rule/bad-value': ['Les lecteurs passent ce qui est d’une autre forme.', 'twitter:card large → summary_large_image'],
	'rule/no-prefix': ['Un préfixe représente un vocabulaire, et dit lequel.', 'shop:price avec shop = https://…'],
	'rule/reserved-name': [
		'Deux balises d’un même nom : les lecteurs prendraient l’une ou l’autre.',
		'meta:description → description'
	],
	'rule/double': [
		'L’une d’elles ne fait rien, et quelqu’un se demandera pourquoi.',
		'Deux règles pour og:title à un type'
	],
	'rule/extra-markup': ['Cela finirait l’en-tête, ou s’exécuterait dans chaque page.', '<div> dans un en-tête']
};
