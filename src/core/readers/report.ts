import { escapeAttribute, escapeText } from '../render/escape';
import type { Card } from './card';
import { nothingFound } from './nothingFound';
import { ALL_READERS, kindOfReader } from './profiles';
import { seenWords } from './seenWords';

/** An address as all readers saw it, as far as a report tells it. */
export interface Seen {
	readonly address: string;
	/** ISO 8601. */
	readonly made: string;
	readonly readers: readonly {
		readonly reader: string;
		readonly isShutOut: boolean;
		readonly hops: readonly { readonly address: string; readonly status: number }[];
		readonly card: Card | undefined;
	}[];
	readonly picture: { readonly facts: unknown } | undefined;
	readonly unseen: number;
	readonly findings: readonly {
		readonly says: string;
		readonly mend: string;
		readonly weight: number;
		readonly line?: number;
	}[];
}

/**
 * What readers saw of an address, as a page of HTML to hand on: it stands alone, runs no script, and fetches nothing but
 * the pictures that the cards show. All of what was served is written as text.
 */
export function reportOf(seen: Seen): string {
	const { address, made, readers, findings } = seen;
	const words = seenWords();
	const found = findings.map(
		({ says, mend, weight, line }) =>
			`<li${weight >= 6 ? ' class="grave"' : ''}><strong>${text(says)}.</strong> ${text(mend)}${line === undefined ? '' : ` ${words.line(line)}`}</li>`
	);
	const way = readers.find(({ hops }) => hops.length > 0)?.hops ?? [];
	return [
		'<!doctype html>',
		`<html lang="${words.language}"><head><meta charset="utf-8"><title>${text(words.title(address))}</title>`,
		`<meta name="viewport" content="width=device-width"><meta name="robots" content="noindex"><style>${STYLE}</style></head>`,
		`<body><h1>${words.heading}</h1><p class="mono">${text(address)}</p><p class="quiet">${text(words.lookedAt(made))}</p>`,
		`<ol class="mono">${way.map((hop) => `<li>${hop.status || words.noAnswer} ${text(hop.address)}</li>`).join('')}</ol>`,
		found.length > 0 ? `<ul>${found.join('')}</ul>` : `<p>${text(nothingFound(seen))}</p>`,
		...readers.map(({ reader, isShutOut, card }) => cardAs(reader, isShutOut, card)),
		'</body></html>',
		''
	].join('\n');
}

const text = (value: string) => escapeText(value);

function cardAs(id: string, isShutOut: boolean, card: Card | undefined): string {
	const reader = ALL_READERS.find((one) => one.id === id);
	const { name, kind } = reader ? { name: reader.name, kind: kindOfReader(reader) } : { name: id, kind: '' };
	const words = seenWords();
	const head = `<section><h2>${text(name)}, ${text(kind)}</h2>`;
	if (!card) return `${head}<p>${isShutOut ? words.shutOut : words.noCard}</p></section>`;
	const { picture, title, description, host, passedOver } = card;
	const isFetched = picture && /^https?:/i.test(picture.address);
	return [
		head,
		isFetched ? `<img src="${escapeAttribute(picture.address)}" alt="${escapeAttribute(picture.alt ?? '')}">` : '',
		`<h3>${shownOf(title)}</h3><p>${shownOf(description)}</p><p class="quiet">${text(host)}</p>`,
		...passedOver.map(({ from, why }) => `<p class="quiet">${text(words.passedOver(from, why))}</p>`),
		'</section>'
	].join('');
}

const shownOf = ({ shown, cut }: Card['title']) => text(shown) + (cut === '' ? '' : `<del>${text(cut)}</del>`);

const STYLE =
	'body{font:16px/1.5 Georgia,serif;max-width:52rem;margin:2rem auto;padding:0 1rem;color:#20302e;background:#fbfaf6}h1{font-size:1.4rem}h2{font-size:.9rem;margin:0;color:#5b6a66}h3{font-size:1.05rem;margin:.3rem 0}section{border-top:1px solid #b7c4bf;padding:.7rem 0;overflow:hidden}img{float:right;max-width:240px;max-height:160px;margin-left:1rem}del{text-decoration:none;color:#98a19e}.quiet{color:#5b6a66;font-size:.85rem}.mono{font-family:monospace;overflow-wrap:anywhere}.grave strong{color:#8d2f1d}';
