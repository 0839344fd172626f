/** How everything looks, by choice of whoever looks: light or dark, closer or wider set. It is kept in a cookie of the browser. */

export const COLOURS = ['system', 'light', 'dark'] as const;
export const SPACES = ['usual', 'dense', 'roomy'] as const;
export interface Look {
	/** Of the system, where nothing was chosen. */
	readonly colours: (typeof COLOURS)[number];
	readonly space: (typeof SPACES)[number];
}

export const LOOK_COOKIE = 'kephalon-look';
/** As long as browsers keep one (seconds). */
const KEPT = 400 * 24 * 60 * 60;

/** What a cookie says; what it does not say, or nobody knows, is as usual. */
export function readLook(said = ''): Look {
	const words = said.split('.');
	return {
		colours: COLOURS.find((one) => one === words[0]) ?? 'system',
		space: SPACES.find((one) => one === words[1]) ?? 'usual'
	};
}

/** The look of the page in view, which its server wrote. */
export const lookNow = (): Look =>
	readLook(`${document.documentElement.dataset.look}.${document.documentElement.dataset.space}`);

/** The attributes by which a page has a look. */
export const lookAttributes = ({ colours, space }: Look) => `data-look="${colours}" data-space="${space}"`;

/** Takes a look at once, and for the next time. */
export function takeLook(look: Look): void {
	document.documentElement.dataset.look = look.colours;
	document.documentElement.dataset.space = look.space;
	const secure = location.protocol === 'https:' ? '; Secure' : '';
	document.cookie = `${LOOK_COOKIE}=${look.colours}.${look.space}; Path=/; Max-Age=${KEPT}; SameSite=Lax${secure}`;
}

/** One step of space (CSS pixels), for what is placed by its number. */
export const stepOfSpace = () =>
	parseFloat(getComputedStyle(document.documentElement).getPropertyValue('--spacing')) || 4;

/** Does a work now, and again whenever the look becomes another, by choice or by the system; gives the way to end that. */
export function withLook(work: () => void): () => void {
	work();
	const chosen = new MutationObserver(work);
	chosen.observe(document.documentElement, { attributeFilter: ['data-look', 'data-space'] });
	const system = matchMedia('(prefers-color-scheme: dark)');
	system.addEventListener('change', work);
	return () => {
		chosen.disconnect();
		system.removeEventListener('change', work);
	};
}
