import type { Chance } from './chance';

/** Documents, templates and texts made by chance, for what is tried without a site. */

const PROSE = [
	'The heath burns a little each winter so that there is heath each summer, and the wardens walk it every day.',
	'It opens at nine.',
	'See also the guide to lichens, which was written for those who never looked at one before.',
	'ferry-house is a place where the boats land and where the tide tables hang on the wall by the door.',
	'朝の潮は早く引き、夕方の潮はゆっくり満ちる。鳥はそのあいだに砂浜へ降りてくる。',
	'Cookies are used here. Accept them?',
	'Changes in version 3.39:',
	'Read on',
	'“Nobody had counted them before,” she says; now there are two hundred nests, and a hide to see them from.'
];
const HEAD_PIECES = [
	'<meta charset="utf-8">',
	'<title>Old title</title>',
	'<title>Second &amp; other</title>',
	'<meta name="description" content="Old description of the page">',
	'<META NAME="Description" CONTENT=\'Shouted\'>',
	'<meta name="robots" content="noindex">',
	'<meta property="og:title" content="Old og">',
	'<meta name="og:image" content="pic.jpg">',
	'<meta property="og:image:url" content="/og.png">',
	'<meta name="twitter:card" content="summary">',
	'<meta property="tide:level" content="high">',
	'<link rel="canonical" href="/here">',
	'<link rel=" Shortcut ICON " href="f.ico">',
	'<link rel="alternate" hreflang="fr" href="/fr/">',
	'<link rel="alternate" type="application/rss+xml" href="/feed" title="Feed">',
	'<link rel="stylesheet" href="a.css">',
	'<link rel="next" href="/2">',
	'<link rel="up" title="The part above" href="/up">',
	'<link rel=" Parent " title="The parent" href="/parent">',
	'<link rel="upwards" title="Not above" href="/no">',
	'<a rel="up" title="No link of the head" href="/no">a</a>',
	'<base href="/under/">',
	'<meta http-equiv="refresh" content="0; url=/on">',
	'<meta http-equiv="refresh" content="30">',
	'<meta http-equiv="Content-Type" content="text/html; charset=iso-8859-1">',
	'<!-- <title>no</title> -->',
	'<script>document.write("<title>x</title>")</script>',
	'<script src="a.js"></script>',
	'<style>title{}</style>',
	'<noscript><img src="t.gif"><link rel="icon" href="n.png"></noscript>',
	'<template><meta name="description" content="t"></template>',
	'<meta name="viewport" content="width=device-width">',
	'<meta itemprop="name" content="I">',
	'<meta name="keywords" content="">',
	'<b>loose</b>'
];
const BODY_PIECES: ((chance: Chance) => string)[] = [
	(chance) => `<p>${chance.pick(PROSE)}</p>`,
	(chance) => `<p>${chance.pick(PROSE)} ${chance.pick(PROSE)}</p>`,
	(chance) => `<h1>${chance.pick(['Ember Heath', 'A <i>page</i>', ''])}</h1>`,
	(chance) => `<h2 id="a">${chance.pick(['Getting here', 'Tides'])}</h2>`,
	(chance) => chance.pick(PROSE),
	(chance) => `<main>${chance.pick(PROSE)}<p>${chance.pick(PROSE)}</p></main>`,
	(chance) => `<article class="post"><p>${chance.pick(PROSE)}</p></article>`,
	() => '<nav><a href="/">Home</a> <a href="/walks">Walks</a> › <b>Here</b></nav>',
	() => '<div id="breadcrumb"><a href="/">Home</a> / <a href="/tides">Tides</a> / Here</div>',
	() => '<ol aria-label="Breadcrumb"><li><a href="/">Home</a><li><a href="/birds">Birds</a></ol>',
	() =>
		'<div id="sidebar"><p>A word from beside the text, which is long enough to be read as prose by mistake.</p></div>',
	() => '<div class="breadcrumbs"><a href="/">Home</a> / <a href="/walks">Walks</a> / Here</div>',
	() => '<footer>© Merrow Trust, all rights reserved by the trust and by nobody else at all.</footer>',
	(chance) =>
		`<div class="${chance.pick(['sidebar', 'cookie', 'content', 'sql-comment', 'main-nav'])}">${chance.pick(PROSE)}</div>`,
	(chance) =>
		`<img src="${chance.pick(['/p/a.jpg', 'b.png', 'data:image/gif;base64,R0', ''])}" alt="${chance.pick(['A bird', '', 'x'])}" width="${chance.pick([16, 200, 900])}" height="${chance.pick([16, 150])}">`,
	() =>
		'<figure><img src="/p/f.jpg"><figcaption>A harrier over the fen, in spring, seen from the hide.</figcaption></figure>',
	() => '<picture><source srcset="/p/s.webp 2x"><img data-src="/p/lazy.jpg"></picture>',
	() =>
		'<table><tr><td>Cell one</td><td><p>Cell text that is long enough to be quoted by somebody who reads it.</p></td></tr></table>',
	() => '<ul><li>One</li><li><a href="/two#part">Two</a></li></ul>',
	() => '<dl><dt>Open</dt><dd>All year, from nine in the morning until the light goes.</dd></dl>',
	() => '<pre>code here\n  more</pre>',
	() => '<blockquote>Quoted words of somebody else, which are not what the page says of itself.</blockquote>',
	() => '<form action="/in"><input type="password" name="p"></form>',
	() => '<meta name="description" content="In the body">',
	() => '<title>In the body</title>',
	() => '<a href="x.html">x</a> <a rel="nofollow" href="/no">no</a> <a hreflang="de" href="/de/">Deutsch</a>',
	() => '<hr>',
	() => '<div class="toc"><ul><li><a href="/c1">Chapter one</a></ul></div>',
	() =>
		'<div class="stockist toco">Stock of the shop by the pier, with prices and with what is on order for spring.</div>',
	() => '<br><br>',
	() => '<p lang="fr">Les oiseaux arrivent au printemps et repartent avant la première neige de l’hiver.</p>',
	() => '<script>if (a < b) document.title = "x"</script>',
	() => '<svg><title>Drawn</title></svg>',
	() => '<table><meta property="og:title" content="broken"><tr><td>x</table>'
];
export const documentOf = (chance: Chance): string => {
	const isXhtml = chance.is(15);
	const lineEnd = chance.pick(['\n', '\n', '\r\n', '\r', '']);
	const indent = chance.pick(['', '\t', '  ']);
	const pieces = (all: readonly string[]) =>
		all
			.map(
				(piece) =>
					indent +
					(isXhtml
						? piece.replace(/(?<!\/)>$/, piece.startsWith('<meta') || piece.startsWith('<link') ? '/>' : '>')
						: piece)
			)
			.join(lineEnd);
	const head = pieces(Array.from({ length: chance.below(9) }, () => chance.pick(HEAD_PIECES)));
	const body = pieces(Array.from({ length: 1 + chance.below(8) }, () => chance.pick(BODY_PIECES)(chance)));
	const start = isXhtml
		? '<?xml version="1.0"?><!DOCTYPE html><html xmlns="http://www.w3.org/1999/xhtml" xml:lang="fr">'
		: chance.pick([
				'<!DOCTYPE html><html lang="en-GB">',
				'<!doctype html>',
				'<html>',
				'',
				'<!-- first --><html lang="ja">'
			]);
	const form = chance.below(10);
	const parts =
		form < 6
			? [start, '<head>', head, '</head>', `<body${chance.pick(['', ' class="x"'])}>`, body, '</body>', '</html>']
			: form < 8
				? [start, head, body]
				: form < 9
					? [start, '<head>', head, body]
					: [start, '<head>', head, '</head>', '<frameset><frame src="/f.html"></frameset>'];
	return parts.filter((part) => part !== '').join(lineEnd);
};
export const extraOf = (chance: Chance): string =>
	Array.from({ length: 1 + chance.below(4) }, () =>
		chance.pick([
			...HEAD_PIECES,
			'text',
			'</head>',
			'<body>',
			'<html lang="x">',
			'<frameset>',
			'<p>x</p>',
			'<meta',
			'<link rel=a href=b>',
			'<script>a',
			'<div><meta name=x content=y></div>'
		])
	).join('');
export const textOf = (chance: Chance): string =>
	Array.from({ length: 1 + chance.below(3) }, () =>
		chance.pick([
			...PROSE,
			'Ünïcödé 👩‍👩‍👧 ﬁn',
			'A word',
			'(in brackets)',
			'—',
			'سلام',
			'veryverylongwordthatdoesnotfitanywhere',
			'e.g. this one. Or this?',
			'U.S. No. 5 is here.'
		])
	).join(' ');
