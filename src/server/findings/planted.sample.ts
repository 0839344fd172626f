import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { expect } from 'vitest';
import { findInFolder } from './folder';
import type { FileFinding } from './folderLinks';

/** A sound site as a folder, and ways to spoil a page of it. */

export const BASE = 'https://merrow.example/guide/';
export interface Sound {
	readonly path: string;
	readonly title: string;
	readonly text: string;
	readonly language?: string;
	readonly versions?: Readonly<Record<string, string>>;
}
const numberOf = (path: string) => [...path].reduce((sum, letter) => sum + letter.charCodeAt(0), 0) % 10;
/** A page with all that a careful hand writes, in forms that people use. */
export const sound = ({ path, title, text, language = 'en', versions = {} }: Sound) => `<!doctype html>
<html lang="${language}">
<head>
<meta charset="utf-8">
<title>${title} – Merrow Guide</title>
<meta name="description" content="${text}">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta name="generator" content="Quill 4">
<meta name="generator" content="Quill theme">
<meta name="robots" content="index, follow, max-image-preview:large">
<meta name="theme-color" content="#1b4d5c">
<meta name="keywords" content="coast, walks">
<meta name="google-site-verification" content="abc">
<link rel="canonical" href="${BASE}${path}">
<link rel="icon" href="/guide/icons/small.png" sizes="32x32">
<link rel="icon" href="${path.includes('/') ? '../' : ''}icons/large.png" sizes="192x192">
<link rel="apple-touch-icon" href="${BASE}icons/large.png">
<link rel="manifest" href="${BASE}site.webmanifest">
<link rel="alternate" type="application/atom+xml" href="${BASE}news.atom">
<link rel="stylesheet" href="/guide/style.css">
${Object.entries(versions)
	.map(([of, to]) => `<link rel="alternate" hreflang="${of}" href="${BASE}${to}">`)
	.join('\n')}
<meta property="og:type" content="article">
<meta property="og:title" content="${title}">
<meta property="og:description" content="${text}">
<meta property="og:url" content="${BASE}${path}">
<meta property="og:site_name" content="Merrow Guide">
<meta property="og:locale" content="${language === 'fr' ? 'fr_FR' : 'en_GB'}">
<meta property="og:image" content="${BASE}pictures/${numberOf(path)}.jpg">
<meta property="og:image:width" content="1200">
<meta property="og:image:height" content="630">
<meta property="og:image:alt" content="What the picture of ${title} shows">
<meta property="article:published_time" content="2026-05-03T18:30:00+02:00">
<meta property="article:tag" content="coast">
<meta property="article:tag" content="walks">
<meta name="twitter:card" content="summary_large_image">
<meta name="twitter:site" content="@merrowguide">
<meta property="fb:app_id" content="1234">
<script type="application/ld+json">{"@context":"https://schema.org","@type":"Article","headline":"${title}"}</script>
</head>
<body><h1>${title}</h1><p>${text} And a good deal more is said of it here, in sentences of their own.</p></body>
</html>
`;
const VERSIONS = { en: 'walks/pier.html', fr: 'fr/jetee.html', 'x-default': 'walks/pier.html' };
export const PAGE: Sound = {
	...{ path: 'walks/pier.html', title: 'The pier at low water', versions: VERSIONS },
	text: 'A walk of two miles along the old pier, with seals on most days and a tearoom at its end.'
};
export const FILE = PAGE.path;

/** The site in a folder of its own. */
export class SoundSite {
	readonly folder = mkdtempSync(join(tmpdir(), 'kephalon-planted-'));

	constructor() {
		const write = (name: string, text: string) => this.write(name, text);
		for (let at = 0; at < 10; at++) write(`pictures/${at}.jpg`, 'picture');
		for (const name of ['icons/small.png', 'icons/large.png', 'site.webmanifest', 'news.atom', 'style.css'])
			write(name, 'x');
		const words = ['Gannets', 'Lanterns', 'Tides', 'Ropes', 'Anchors', 'Herring', 'Slate', 'Moss', 'Bells', 'Ferries'];
		for (const [at, word] of words.entries())
			write(
				`walks/${word.toLowerCase()}.html`,
				sound({
					...{ path: `walks/${word.toLowerCase()}.html`, title: `${word} of the northern coast` },
					text: `What there is to know of ${word.toLowerCase()} on the northern coast, told by those who have seen them ${at + 2} times.`
				})
			);
		write(
			'index.html',
			sound({
				path: '',
				title: 'All walks of the coast',
				text: 'Every walk of the northern coast, with its length, its tides and how one comes there.'
			})
		);
		write(
			'fr/jetee.html',
			sound({
				...{ path: 'fr/jetee.html', title: 'La jetée à marée basse', language: 'fr', versions: VERSIONS },
				text: 'Une promenade de trois kilomètres sur la vieille jetée, avec des phoques et un salon de thé au bout.'
			})
		);
		write(FILE, sound(PAGE));
	}

	write(name: string, text: string | Uint8Array): void {
		mkdirSync(dirname(join(this.folder, name)), { recursive: true });
		writeFileSync(join(this.folder, name), text);
	}

	/** What is found where its page is another for as long as that takes. */
	foundWith(page: string | Uint8Array): FileFinding[] {
		this.write(FILE, page);
		const { findings } = findInFolder(this.folder);
		this.write(FILE, sound(PAGE));
		return findings;
	}

	remove(): void {
		rmSync(this.folder, { recursive: true, force: true });
	}
}

export const toldOf = (findings: readonly FileFinding[]) =>
	findings.map(
		({ file, line, finding }) =>
			`${file}:${line ?? '-'} ${finding.code} ${finding.tag ?? ''} ${JSON.stringify(finding.data)}`
	);

export type Plant = (html: string) => string;
export const instead =
	(before: string, after: string): Plant =>
	(html) => {
		expect(html).toContain(before);
		return html.replace(before, after);
	};
export const content =
	(name: string, value: string): Plant =>
	(html) => {
		const tag = new RegExp(`((?:name|property)="${name}" content=")[^"]*`);
		expect(html).toMatch(tag);
		return html.replace(tag, `$1${value}`);
	};
export const added = (markup: string) => instead('</head>', `${markup}\n</head>`);
