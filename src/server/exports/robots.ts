import { normaliseBase, type Site } from '$core';

/** Stands in it: one without it is somebody else’s. */
export const ROBOTS_MARK = '# Written by Kephalon.';

/**
 * The robots.txt of a site (RFC 9309): which paths robots are to leave alone, those for one robot in a group of its own,
 * and where the sitemap is; a private site closes all. It is asked for at the root of the host, so the paths are those under it.
 */
export function robotsOf(site: Site): string {
	if (site.private) return `${ROBOTS_MARK}\nUser-agent: *\nDisallow: /\n`;
	const base = new URL(normaliseBase(site.base) ?? 'https://site.invalid/');
	const under = (path: string) => base.pathname + path.replace(/^\//, '');
	const all = new Map<string, string[]>([['*', []]]);
	for (const { robot = '*', path } of site.robots ?? []) {
		const paths = all.get(robot) ?? [];
		all.set(robot, [...paths, ruleOf(under(path))]);
	}
	// A robot that is named takes its own group alone: what is said to all is said to it too.
	const shared = all.get('*') as string[];
	const groups = [...all].map(([robot, paths]) => {
		const rules = robot === '*' ? shared : [...new Set([...paths, ...shared])];
		const lines = rules.length > 0 ? rules.map((path) => `Disallow: ${path}`) : ['Allow: /'];
		return [`User-agent: ${robot}`, ...lines].join('\n');
	});
	return `${ROBOTS_MARK}\n${groups.join('\n\n')}\n\nSitemap: ${base.href}sitemap.xml\n`;
}

/** A path as a rule: what is no letter of the Latin alphabet is written by its bytes (RFC 9309, 2.2.2). */
const ruleOf = (path: string) =>
	path.replace(/[^\x21-\x7e]+/g, (part) => encodeURIComponent(part)).replaceAll('#', '%23');
