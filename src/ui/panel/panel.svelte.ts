import { sameJson, type Fields } from '$core';
import type { PageBench } from '$server/web/benchData';
import { comeInBy, sentenceOf, unreachable } from '$ui/client';
import { kephalon } from '../../client/client';
import { message, readMessage, type FromPanel, type ToPanel } from '../../client/panelProtocol';
import { readTyped } from './typed';

/** What let the panel in is had anew so long (milliseconds) before it ends. */
const BEFORE = 120_000;

/** What cannot be had for longer is not asked for more often. */
const LEAST = 30_000;

const isNothing = (value: unknown) => value === undefined || value === null || value === '';

/** The page that the panel stands in: what is heard of it, and told. */
export interface Host {
	/** Its origin: nothing else is heard, and nobody else is told. */
	readonly origin: string;
	readonly window: Pick<Window, 'postMessage'>;
}

/** The panel: whether it is let in, the page that it is at, and what an editor beside it holds. */
export class PanelState {
	/** What the page's layers are; undefined until it is known. */
	data = $state.raw<PageBench | undefined>();
	/** What is typed in the editor beside it. */
	typed = $state.raw<Fields | undefined>();
	/** Nobody is in, and the page beside it lets nobody in: one signs in by hand. */
	asksToSignIn = $state(false);
	/** Why there is nothing to show, in a sentence. */
	told = $state<string | undefined>();
	private page: Extract<ToPanel, { say: 'page' }> | undefined;
	private said: unknown = {};
	private asked = 0;
	private isBrought = false;
	/** What lets the panel in, where no session comes along. */
	private key: string | undefined;
	private renewing: ReturnType<typeof setTimeout> | undefined;

	constructor(
		readonly site: string,
		private readonly host: Host,
		private isIn: boolean
	) {}

	private tell(told: FromPanel) {
		this.host.window.postMessage(message(told), this.host.origin);
	}
	/** The panel listens. */
	begin() {
		this.tell({ say: 'ready' });
	}
	kept = () => this.tell({ say: 'kept' });
	shown = () => this.tell({ say: 'shown' });
	end() {
		clearTimeout(this.renewing);
	}

	/** Hears a message; of anybody but the page it stands in, and of other versions, nothing. */
	hear({ origin, source, data }: Pick<MessageEvent, 'origin' | 'source' | 'data'>) {
		if (origin !== this.host.origin || source !== this.host.window) return;
		const told = readMessage<ToPanel>(data);
		if (!told) return;
		switch (told.say) {
			case 'page':
				if (typeof told.page !== 'string') return;
				// What the page beside it brought is for one page.
				if (told.page !== this.page?.page) {
					if (this.isBrought) this.isIn = false;
					// What is typed from now on is no text of the page before.
					this.data = undefined;
				}
				this.page = told;
				return void this.read();
			case 'fields':
				this.said = told.fields;
				return this.take();
			case 'saved':
				return void this.read();
			case 'token':
				return this.comeIn(told.token);
		}
	}

	private take() {
		const { data } = this;
		if (!data) return;
		const declared = data.types.find(({ name }) => name === data.page.type)?.fields ?? [];
		const typed = Object.entries(readTyped(this.said, declared));
		// What is there already is not typed.
		const kept = (name: string) => data.page.fields[name];
		const other = typed.filter(
			([name, value]) => !(isNothing(value) ? isNothing(kept(name)) : sameJson(kept(name), value))
		);
		this.typed = other.length > 0 ? Object.fromEntries(other) : undefined;
	}

	/** Reads the page anew, and shows what is typed over it. */
	async read() {
		const { page } = this;
		if (!page) return;
		if (!this.isIn) return this.tell({ say: 'token-wanted' });
		const mine = ++this.asked;
		const { page: path, type, language } = page;
		const query = {
			path,
			...(typeof type === 'string' && { type }),
			...(typeof language === 'string' && { language })
		};
		const { data, why } = await this.ask((client) =>
			client.GET('/sites/{site}/bench', { params: { path: { site: this.site }, query } })
		);
		// Another page is at hand by now, or whoever was in is not any more.
		if (mine !== this.asked || !this.isIn) return;
		this.told = why;
		// Pairs of numbers are described as lists of two.
		this.data = data as PageBench | undefined;
		this.take();
	}

	/** What lets the panel in has ended, or there was none. */
	signedOut = () => {
		this.isIn = false;
		this.tell({ say: 'token-wanted' });
	};

	/** Is let in by what the page beside it brought, or by a window in which somebody signed in; '' for nothing. */
	comeIn(token: unknown, ends?: string) {
		this.asksToSignIn = typeof token !== 'string' || token === '';
		if (this.asksToSignIn) return;
		this.comeBy(token as string);
		this.isIn = true;
		this.isBrought = ends === undefined;
		this.renewAt(ends);
		void this.read();
	}

	/** Before it ends, or soon where it is not known when: another one in its place. */
	private renewAt(ends: string | undefined) {
		clearTimeout(this.renewing);
		const left = Date.parse(ends ?? '') - Date.now() - BEFORE;
		this.renewing = setTimeout(() => void this.renew(), left > LEAST ? left : LEAST);
	}
	private async renew() {
		const { data } = await this.ask((client) =>
			client.POST('/sites/{site}/panel/tokens', { params: { path: { site: this.site } }, body: {} })
		);
		if (!data) return;
		this.comeBy(data.token);
		this.renewAt(data.ends);
	}
	private comeBy(token: string) {
		this.key = token;
		// What is written in the panel is sent as the rooms send it.
		comeInBy(token);
	}
	/** Asks as any program does: what came, or why nothing did, in a sentence. */
	private async ask<T>(
		asks: (client: ReturnType<typeof kephalon>) => Promise<{ data?: T; error?: unknown; response: Response }>
	): Promise<{ data?: T; why?: string }> {
		const server = location.origin;
		try {
			const { data, error, response } = await asks(
				kephalon({ server, ...(this.key !== undefined && { key: this.key }) })
			);
			return data === undefined ? { why: sentenceOf(error ?? {}, response.status) } : { data };
		} catch {
			return { why: unreachable() };
		}
	}

	/** Opens a window of Kephalon's in which one signs in; what it hands over is heard by `heardWindow`. */
	signIn() {
		this.opened = window.open(`/panel/${encodeURIComponent(this.site)}/open`, '_blank', 'popup,width=460,height=640');
	}
	private opened: Window | null = null;
	/** Hears what a window of Kephalon's hands over, and nothing of any other. */
	hearWindow({ origin, source, data }: Pick<MessageEvent, 'origin' | 'source' | 'data'>) {
		if (origin !== location.origin || source !== this.opened || this.opened === null) return;
		const { kephalonPanel, ends } = (data ?? {}) as { kephalonPanel?: unknown; ends?: unknown };
		if (typeof kephalonPanel === 'string') this.comeIn(kephalonPanel, typeof ends === 'string' ? ends : undefined);
	}
}
