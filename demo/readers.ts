import type { IncomingMessage, RequestListener, ServerResponse } from 'node:http';
import { ALL_READERS, FOR_EVER, type Card, type ReaderProfile } from '$core';
import { TracingFetcher, type Via } from '$server/fetching/trace';
import { probe } from '$server/probes/probe';
import type { AskAnswer, KeptCard } from '$server/readers/service';

/**
 * The stand-in readers as a service of their own: a link that is pasted gives the card that a reader makes of it, kept
 * under the reader's rules by a clock that can be moved on; asked in its own way, a reader fetches again.
 */

const HOUR = 3_600_000;
/** A reader is asked to fetch again so often in a minute of its clock; more is refused for the rest of it. */
const MOST_ASKS = 30;
/** Two asks count as one asked twice when they lie so close (milliseconds). */
const TWICE_WITHIN = 10 * 60_000;

interface Memory extends KeptCard {
	/** When its card runs out, by the clock. */
	readonly ends: number;
	/** When it was last asked to fetch again. */
	asked?: number;
}

export class ReadersService {
	/** By reader and by what the card is kept under. */
	private readonly cards = new Map<string, Memory>();
	/** What an address was kept under when it was last fetched. */
	private readonly keys = new Map<string, string>();
	private readonly asks = new Map<string, number[]>();
	/** How far its clock is ahead, in milliseconds. */
	private ahead = 0;

	constructor(
		private readonly via: Via | undefined,
		private readonly now: () => number = Date.now,
		readonly readers: readonly ReaderProfile[] = ALL_READERS
	) {}

	private get clock(): number {
		return this.now() + this.ahead;
	}
	moveOn(hours: number): string {
		this.ahead += hours * HOUR;
		return new Date(this.clock).toISOString();
	}

	/** The card that a reader shows of an address now: kept, or fetched when it has none that is still good. */
	async card(reader: string, address: string): Promise<KeptCard> {
		const known = this.known(reader, address);
		return known && this.isGood(known) ? told(known) : this.fetch(reader, address);
	}

	/** Asks a reader to fetch an address again, in the way that it lets itself be asked. */
	async again(reader: string, address: string): Promise<AskAnswer> {
		const again = this.named(reader).habits.keeps?.again ?? 'ask';
		const minute = (this.asks.get(reader) ?? []).filter((at) => this.clock - at < 60_000);
		if (minute.length >= MOST_ASKS)
			return { is: 'limit', wait: Math.ceil((60_000 - (this.clock - (minute[0] as number))) / 1000) };
		this.asks.set(reader, [...minute, this.clock]);
		const known = this.known(reader, address);
		if (again === 'wait' || again === 'new-address' || again === 'never')
			return { is: again, until: known?.until ?? null };
		if (again === 'ask-twice' && known && !(known.asked !== undefined && this.clock - known.asked < TWICE_WITHIN)) {
			known.asked = this.clock;
			return { is: 'ask-again' };
		}
		return { is: 'fetched', card: await this.fetch(reader, address) };
	}

	/** Every card that is kept. */
	all(): KeptCard[] {
		return [...this.cards.values()].map(told);
	}

	private named = (reader: string) => this.readers.find(({ id }) => id === reader)!;
	private isGood = ({ ends }: Memory) => ends > this.clock;

	/** The card that an address was given: its own, or that of the address which it named. */
	private known(reader: string, address: string): Memory | undefined {
		const key = this.keys.get(`${reader} ${address}`);
		const memory = this.cards.get(`${reader} ${key ?? address}`);
		// What another page put here by naming this address is not this page's own.
		return key === undefined && memory?.address !== address ? undefined : memory;
	}

	private async fetch(reader: string, address: string): Promise<KeptCard> {
		const fetcher = new TracingFetcher(new Set(), this.via);
		try {
			const seen = await probe(fetcher, address, [this.named(reader)]);
			const one = seen.readers[0]!;
			const { key, keeps } = one;
			this.keys.set(`${reader} ${address}`, key);
			const there = this.cards.get(`${reader} ${key}`);
			// A page that names another shares as that one, whose own card stays.
			if (there && there.address === key && key !== address && this.isGood(there)) return told(there);
			const ends = keeps >= FOR_EVER ? Number.POSITIVE_INFINITY : this.clock + keeps * HOUR;
			const memory: Memory = {
				...{ reader, address, key, ends, isShutOut: one.isShutOut },
				fetched: new Date(this.clock).toISOString(),
				until: keeps === 0 ? null : Number.isFinite(ends) ? new Date(ends).toISOString() : NEVER,
				card: one.card ? shownOf(one.card) : null
			};
			this.cards.set(`${reader} ${key}`, memory);
			return told(memory);
		} finally {
			await fetcher.close();
		}
	}
}

/** The end of what is kept for ever, as a moment that others can compare. */
const NEVER = '9999-12-31T23:59:59.999Z';

const told = ({ ends: _ends, asked: _asked, ...card }: Memory): KeptCard => card;
const shownOf = ({ title, description, picture, host, siteName }: Card) => ({
	title: title.shown + title.cut,
	description: description.shown + description.cut,
	...{ picture: picture?.address ?? '', host, siteName }
});

/** Answers requests to the service; `/` is a page to paste a link into. */
export function readersHandler(service: ReadersService): RequestListener {
	return (request, response) => {
		answer(service, request).then(
			([status, body]) => send(response, status, body),
			(error: Error) => send(response, 502, { detail: `The address could not be looked at: ${error.message}` })
		);
	};
}

type Answered = readonly [status: number, body: unknown];

async function answer(service: ReadersService, request: IncomingMessage): Promise<Answered> {
	const { pathname, searchParams } = new URL(request.url ?? '/', 'http://readers.invalid');
	const reader = searchParams.get('reader') ?? '';
	const address = searchParams.get('address') ?? '';
	const isAddress = /^https?:\/\/\S+$/i.test(address);
	const method = request.method ?? 'GET';
	if (method === 'GET' && pathname === '/') return [200, await pageOf(service, isAddress ? address : '')];
	if (method === 'GET' && pathname === '/cards') return [200, service.all()];
	if (method === 'POST' && pathname === '/clock') {
		const hours = Number(searchParams.get('hours'));
		if (!(hours >= 0 && hours <= 100_000))
			return [422, { detail: 'Say by how many hours the clock moves on: ?hours=24.' }];
		return [200, { clock: service.moveOn(hours) }];
	}
	if (!service.readers.some(({ id }) => id === reader))
		return [
			404,
			{ detail: `There is no reader "${reader}". There are ${service.readers.map(({ id }) => id).join(', ')}.` }
		];
	if (!isAddress) return [422, { detail: `“${address}” is no http or https address.` }];
	if (method === 'GET' && pathname === '/card') return [200, await service.card(reader, address)];
	if (method === 'POST' && pathname === '/again') {
		const answered = await service.again(reader, address);
		return [answered.is === 'limit' ? 429 : 200, answered];
	}
	return [404, { detail: 'There is nothing here. Ask for /card, /again, /cards or /clock.' }];
}

function send(response: ServerResponse, status: number, body: unknown) {
	const isPage = typeof body === 'string';
	response.writeHead(status, { 'content-type': isPage ? 'text/html; charset=utf-8' : 'application/json' });
	response.end(isPage ? body : JSON.stringify(body));
}

const escape = (text: string) => text.replace(/[&<>"]/g, (sign) => `&#${sign.charCodeAt(0)};`);

async function pageOf(service: ReadersService, address: string): Promise<string> {
	const cards =
		address === ''
			? []
			: await Promise.all(
					service.readers.map(async ({ id, name, kind }) => ({ name, kind, seen: await service.card(id, address) }))
				);
	const shown = cards.map(({ name, kind, seen }) => {
		const { card } = seen;
		const body = card
			? `${card.picture ? `<img src="${escape(card.picture)}" alt="">` : ''}<h2>${escape(card.title)}</h2><p>${escape(card.description)}</p><p class="quiet">${escape(card.host)}</p>`
			: `<p>${seen.isShutOut ? 'It is shut out by robots.txt.' : 'It could not read the page.'}</p>`;
		return `<section><h3>${escape(name)}</h3><p class="quiet">${escape(kind)}; fetched ${escape(seen.fetched)}${seen.until ? `, kept until ${escape(seen.until)}` : ', not kept'}</p>${body}</section>`;
	});
	return `<!doctype html>\n<html lang="en"><head><meta charset="utf-8"><title>The readers</title><meta name="viewport" content="width=device-width"><style>${STYLE}</style></head>\n<body><h1>What readers show of a link</h1><form><label>A link <input name="address" size="60" value="${escape(address)}"></label> <button>Paste</button></form>${shown.join('\n')}</body></html>\n`;
}

const STYLE =
	'body{font:16px/1.5 Georgia,serif;max-width:60rem;margin:2rem auto;padding:0 1rem;color:#20302e}section{border-top:1px solid #b7c4bf;padding:.6rem 0}h2{font-size:1rem;margin:.3rem 0}h3{font-size:1rem;margin:0}img{float:right;max-width:160px}.quiet{color:#5b6a66;font-size:.85rem}';
