import { message, readMessage, type FromPanel, type ToPanel } from './panelProtocol';

/** Kephalon's own origin: where this script came from. */
const KEPHALON = new URL(import.meta.url).origin;
/** A frame that says nothing for so long (milliseconds) is not let in, or Kephalon is away. */
const PATIENCE = 15_000;
/** Inputs whose contents are nobody's business, or no text. */
const NEVER = new Set(['password', 'hidden', 'file', 'submit', 'button', 'reset', 'image']);

const STYLE =
	':host { display: block } iframe { display: block; border: 0; width: 100%; height: 100%; min-height: 480px }';

type Fields = Readonly<Record<string, unknown>>;

/**
 * `<kephalon-panel site page>`: how one page is shared, beside an editor of its content. What is typed there is told by `fields` or
 * `follow`, and the cards follow; what is written in the panel is kept in Kephalon. `type` and `language` say what a page is that is
 * not in Kephalon yet. Events: `kephalon-ready`, `kephalon-kept`, `kephalon-shown`.
 */
class KephalonPanel extends HTMLElement {
	static readonly observedAttributes = ['site', 'page', 'type', 'language'];
	/** Asks the page's own server for what lets the panel in; without it one signs in by a window of Kephalon's. */
	bringToken: (() => Promise<string>) | undefined;
	private readonly frame = document.createElement('iframe');
	private readonly told = document.createElement('p');
	private typed: Fields = {};
	private isReady = false;
	private timer: ReturnType<typeof setTimeout> | undefined;

	constructor() {
		super();
		const root = this.attachShadow({ mode: 'open' });
		// A sheet that is made: a page's policy may refuse styles in markup, and an element that is made has no attributes yet.
		const sheet = new CSSStyleSheet();
		sheet.replaceSync(STYLE);
		root.adoptedStyleSheets = [sheet];
		this.frame.title = 'How this page is shared';
		this.told.setAttribute('role', 'alert');
		this.told.hidden = true;
		root.append(this.told, this.frame);
	}

	connectedCallback() {
		window.addEventListener('message', this.hear);
		this.open();
	}
	disconnectedCallback() {
		window.removeEventListener('message', this.hear);
		clearTimeout(this.timer);
		this.isReady = false;
	}
	attributeChangedCallback(name: string, before: string | null, now: string | null) {
		if (!this.isConnected || before === now) return;
		if (name === 'site') this.open();
		else this.tellPage();
	}

	/** What the editor holds, by the name of the field: texts as they are, rich text as HTML, a picture as its address or `{ src, alt }`. */
	set fields(fields: Fields) {
		this.typed = fields;
		this.tell({ say: 'fields', fields });
	}
	get fields(): Fields {
		return this.typed;
	}

	/** What was typed has been sent to Kephalon. */
	saved() {
		this.tell({ say: 'saved' });
	}

	/**
	 * Follows what is typed in a form: all that has a name, or, where some say `data-kephalon="title"`, those, by that name. Gives what
	 * ends it.
	 */
	follow(form: HTMLElement): () => void {
		const read = () => (this.fields = fieldsIn(form));
		form.addEventListener('input', read);
		form.addEventListener('change', read);
		read();
		return () => {
			form.removeEventListener('input', read);
			form.removeEventListener('change', read);
		};
	}

	private open() {
		const site = this.getAttribute('site') ?? '';
		this.isReady = false;
		const query = new URLSearchParams({ host: location.origin });
		this.frame.src = `${KEPHALON}/panel/${encodeURIComponent(site)}?${query}`;
		clearTimeout(this.timer);
		this.timer = setTimeout(() => {
			this.told.hidden = false;
			this.told.textContent = `Kephalon’s panel did not come. Either ${KEPHALON} is away, or it does not let pages of ${location.origin} show it: an owner names them there, in the room of people.`;
		}, PATIENCE);
	}

	private readonly hear = ({ origin, source, data }: MessageEvent) => {
		if (origin !== KEPHALON || source !== this.frame.contentWindow) return;
		const told = readMessage<FromPanel>(data);
		if (!told) return;
		switch (told.say) {
			case 'ready':
				clearTimeout(this.timer);
				this.told.hidden = true;
				this.isReady = true;
				this.tellPage();
				this.tell({ say: 'fields', fields: this.typed });
				return this.announce('ready');
			case 'token-wanted':
				return void this.bring();
			case 'kept':
			case 'shown':
				return this.announce(told.say);
		}
	};

	private async bring() {
		const token = await this.bringToken?.().catch(() => '');
		this.tell({ say: 'token', token: typeof token === 'string' ? token : '' });
	}

	private tellPage() {
		const [type, language] = [this.getAttribute('type'), this.getAttribute('language')];
		const page = this.getAttribute('page') ?? '';
		this.tell({ say: 'page', page, ...(type && { type }), ...(language && { language }) });
	}
	private tell(told: ToPanel) {
		if (this.isReady) this.frame.contentWindow?.postMessage(message(told), KEPHALON);
	}
	private announce(what: string) {
		this.dispatchEvent(new CustomEvent(`kephalon-${what}`, { bubbles: true }));
	}
}

/** What a form holds, by the names of its fields. */
function fieldsIn(form: HTMLElement): Fields {
	const marked = [...form.querySelectorAll<HTMLElement>('[data-kephalon]')];
	const named =
		marked.length > 0 ? marked : [...form.querySelectorAll<HTMLElement>('input[name], textarea[name], select[name]')];
	return Object.fromEntries(
		named.flatMap((one) => {
			const name = one.dataset.kephalon || one.getAttribute('name');
			const value = valueOf(one);
			return name && value !== undefined ? [[name, value]] : [];
		})
	);
}

function valueOf(one: HTMLElement): string | boolean | undefined {
	if (one instanceof HTMLInputElement) {
		if (NEVER.has(one.type)) return undefined;
		if (one.type === 'radio') return one.checked ? one.value : undefined;
		return one.type === 'checkbox' ? one.checked : one.value;
	}
	if (one instanceof HTMLTextAreaElement || one instanceof HTMLSelectElement) return one.value;
	// Text that is written in the page itself.
	return one.innerHTML;
}

if (!customElements.get('kephalon-panel')) customElements.define('kephalon-panel', KephalonPanel);
