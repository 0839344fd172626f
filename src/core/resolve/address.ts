import { settleText, trimSpace } from '../text/text';
import { parseUrl } from '../text/url';

/** A path that the URL standard leaves as it is: no dot segments, nothing to encode. Lets most pages skip the parser. */
const SAFE_PATH = /^(?:\/[A-Za-z0-9_~-][A-Za-z0-9_~.-]*)*\/?$/;

/** A folder is one place with the file that opens it: `…/index.html` is `…/`. */
export const folderForm = (address: string): string => address.replace(/(^|\/)index\.x?html?(?=[?#]|$)/i, '$1');

/** Addresses under a site's public base (R9). One is made per site; it remembers the addresses of pictures. */
export class AddressBook {
	/** The base as the URL standard writes it, ending in a slash; undefined when it is no http(s) address. */
	readonly base: string | undefined;
	private readonly prefix: string;
	private readonly known = new Map<string, string>();

	constructor(base: string) {
		this.base = normaliseBase(base);
		this.prefix = this.base?.slice(0, -1) ?? '';
	}

	/** The absolute address of a path of the site, or undefined without a base. `?` begins a query, `#…` goes. */
	ofPath(path: string): string | undefined {
		if (this.base === undefined) return undefined;
		if (SAFE_PATH.test(path) && path !== '') return this.prefix + path;
		const url = parseUrl('.' + (path.startsWith('/') ? path : `/${path}`), this.base);
		if (url) url.hash = '';
		return url?.href;
	}

	/**
	 * The absolute address a value means: as it is, or a path under the base when it begins with one slash, or else
	 * relative to the page. Undefined for anything that is not http or https (URL standard, section 4).
	 */
	ofValue(value: string, page: string | undefined): string | undefined {
		const text = settleText(value);
		if (text === '') return undefined;
		if (text.startsWith('/') && !/^\/[/\\]/.test(text)) return this.ofLocal(text);
		const url = parseUrl(text, page ?? this.base);
		return url && isHttp(url) ? url.href : undefined;
	}

	/** Like `ofValue` for a picture's source; the same few stand on many pages, so they are kept. */
	ofPicture(src: string, page: string | undefined): string | undefined {
		if (!/^(\/|https?:)/i.test(src)) return this.ofValue(src, page);
		const known = this.known.get(src);
		if (known !== undefined) return known;
		const address = this.ofValue(src, undefined);
		if (address !== undefined) this.known.set(src, address);
		return address;
	}

	private ofLocal(path: string): string | undefined {
		if (this.base === undefined) return undefined;
		return SAFE_PATH.test(path) ? this.prefix + path : parseUrl('.' + path, this.base)?.href;
	}
}

const isHttp = (url: URL) => url.protocol === 'https:' || url.protocol === 'http:';

/** A base address made whole: http(s), no query or fragment, ending in a slash. Undefined when it cannot be one. */
export function normaliseBase(base: string): string | undefined {
	const url = parseUrl(trimSpace(base));
	if (!url || !isHttp(url) || url.username || url.password) return undefined;
	url.search = '';
	url.hash = '';
	if (!url.pathname.endsWith('/')) url.pathname += '/';
	return url.href;
}

const LOCAL_NAME = /^(.*\.)?localhost$|\.(local|internal)$/;
/** As the URL parser writes numbers: four of them in IPv4. */
const LOCAL_NUMBER =
	/^(0\.0\.0\.0|(127|10)(\.\d+){3}|(192\.168|169\.254|172\.(1[6-9]|2\d|3[01]))(\.\d+){2}|::1?|(f[cd]|fe80:)[^:]*:.*)$/;

/** Whether an address leads to this machine or a network of its own, where no reader of links can follow. */
export function isLocalAddress(address: string): boolean {
	const url = parseUrl(address);
	if (!url) return false;
	const host = url.hostname.replace(/^\[|\]$/g, '');
	return LOCAL_NAME.test(host) || LOCAL_NUMBER.test(host);
}
