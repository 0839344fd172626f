import type { IncomingMessage, RequestListener, ServerResponse } from 'node:http';
import { toText, type Fields, type Page } from '$core';
import { kephalon as kephalonAt } from '../src/client/client';

/**
 * A made-up editor: where the texts of the demo's site are written, by a program that knows nothing of heads. Kephalon's panel stands
 * beside its form; what is saved is pushed to Kephalon.
 */
export interface Editor {
	readonly pages: ReadonlyMap<string, Page>;
	readonly site: string;
	/** Where Kephalon is. */
	readonly kephalon: () => string;
	/** What the editor asks Kephalon with, and as whom its panel is let in, where there are people. */
	readonly key?: string | undefined;
	readonly person: string;
}

const FIELDS = [
	{ name: 'title', label: 'Title', lines: 1 },
	{ name: 'summary', label: 'Summary', lines: 3 },
	{ name: 'body', label: 'Text', lines: 12 }
] as const;

/** Answers requests for the editor. */
export function editorHandler({ pages, site, kephalon, key, person }: Editor): RequestListener {
	/** What was saved, over what the pages began with. */
	const saved = new Map<string, Fields>();
	const client = () => kephalonAt({ server: kephalon(), ...(key && { key }) });
	const fieldsOf = (page: Page): Fields => ({ ...page.fields, ...saved.get(page.path) });
	return (request, response) => {
		const { pathname, searchParams } = new URL(request.url ?? '/', 'http://editor.invalid');
		if (pathname === '/save' && request.method === 'POST') return void save(request, response);
		if (pathname === '/panel-token' && request.method === 'POST')
			return void letIn(searchParams.get('page') ?? '/', response);
		const page = pages.get(searchParams.get('page') ?? '/visit') ?? [...pages.values()][0]!;
		response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' }).end(pageOf(page, fieldsOf(page)));
	};

	/** The key stays here: the panel gets what lets it in at one page, for a while. */
	async function letIn(page: string, response: ServerResponse) {
		const asked = client().POST('/sites/{site}/panel/tokens', { params: { path: { site } }, body: { page, person } });
		const answer = await asked.catch(() => undefined);
		response
			.writeHead(200, { 'content-type': 'text/plain', 'cache-control': 'no-store' })
			.end(answer?.data?.token ?? '');
	}

	async function save(request: IncomingMessage, response: ServerResponse) {
		try {
			let text = '';
			for await (const part of request) text += String(part);
			const { page, fields } = JSON.parse(text) as { page: string; fields: Fields };
			const known = pages.get(page);
			if (!known) return void response.writeHead(404).end('No such page.');
			saved.set(page, { ...saved.get(page), ...fields });
			const { error } = await client().PATCH('/sites/{site}/pages/{path}', {
				params: { path: { site, path: page }, query: { source: 'editor' } },
				body: { fields } as never
			});
			response.writeHead(error ? 502 : 200, { 'content-type': 'text/plain; charset=utf-8' });
			response.end(error ? `Kephalon says: ${error.detail}` : 'Saved.');
		} catch (error) {
			response.writeHead(502, { 'content-type': 'text/plain; charset=utf-8' }).end(String(error));
		}
	}

	function pageOf(page: Page, fields: Fields): string {
		const list = [...pages.values()]
			.filter(({ language }) => language === undefined)
			.slice(0, 40)
			.map(({ path, fields: { title } }) => {
				const here = path === page.path ? ' aria-current="page"' : '';
				return `<li><a href="/?page=${encodeURIComponent(path)}"${here}>${escaped(toText(title))}</a></li>`;
			});
		const inputs = FIELDS.map(({ name, label, lines }) => {
			const value = escaped(toText(fields[name]));
			const field =
				lines === 1
					? `<input name="${name}" value="${value}">`
					: `<textarea name="${name}" rows="${lines}">\n${value}</textarea>`;
			return `<label>${label}${field}</label>`;
		});
		return `<!doctype html>
<html lang="en">
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escaped(toText(fields.title))} · Merrow Desk</title>
<style>${STYLE}</style>
<script type="module" src="${kephalon()}/panel.js"></script>
<header><strong>Merrow Desk</strong> <span>a made-up editor, with Kephalon’s panel beside it</span></header>
<nav aria-label="Pages"><ul>${list.join('')}</ul></nav>
<main>
	<h1>${escaped(page.path)}</h1>
	<form>${inputs.join('')}<p><button>Save</button> <output></output></p></form>
</main>
<aside aria-label="How it is shared">
	<kephalon-panel site="${escaped(site)}" page="${escaped(page.path)}"></kephalon-panel>
</aside>
<script type="module">
	await customElements.whenDefined('kephalon-panel');
	const [form, panel] = [document.querySelector('form'), document.querySelector('kephalon-panel')];
	panel.follow(form);
${key ? BRING : ''}	form.addEventListener('submit', async (event) => {
		event.preventDefault();
		const body = JSON.stringify({ page: panel.getAttribute('page'), fields: panel.fields });
		const answer = await fetch('/save', { method: 'POST', body });
		form.querySelector('output').value = await answer.text();
		if (answer.ok) panel.saved();
	});
</script>
`;
	}
}

const BRING = `	panel.bringToken = async () => {
		const page = encodeURIComponent(panel.getAttribute('page'));
		return (await fetch('/panel-token?page=' + page, { method: 'POST' })).text();
	};
`;

const escaped = (text: string) => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('"', '&quot;');

const STYLE = `
	* { box-sizing: border-box; }
	body { display: grid; grid: auto 1fr / 220px 1fr 400px; min-height: 100vh; margin: 0; background: #fff; color: #222;
		font: 15px/1.5 Georgia, serif; }
	header { grid-column: 1 / -1; padding: 10px 20px; background: #333146; color: #fff; }
	header span { color: #d5d2e6; }
	nav { overflow: auto; max-height: calc(100vh - 44px); padding: 8px; background: #f3f1f8; font-size: 14px; }
	nav ul { list-style: none; margin: 0; padding: 0; }
	nav a { display: block; padding: 3px 8px; color: inherit; text-decoration: none; }
	nav a[aria-current] { background: #dcd7ee; font-weight: bold; }
	main { overflow: auto; padding: 8px 28px; max-height: calc(100vh - 44px); }
	h1 { font: 600 14px ui-monospace, monospace; color: #555; }
	label { display: block; margin-bottom: 14px; font-size: 13px; color: #555; }
	input, textarea { display: block; width: 100%; padding: 8px; border: 1px solid #aaa; font: 16px/1.5 Georgia, serif; color: #222; }
	button { padding: 6px 18px; border: 0; background: #333146; color: #fff; font: inherit; }
	aside { border-left: 1px solid #ccc; }
	kephalon-panel { height: calc(100vh - 48px); }
	@media (max-width: 900px) { body { display: block; } nav { max-height: 120px; } aside { border: 0; } }
`;
