/** What is delivered before the routes of the contract, for the description of all: heads, manifests. */

const text = { type: 'string' } as const;
const asked = (name: string, description: string) => ({
	...{ name, in: 'query' as const, required: false, schema: text, description }
});
const SITE = {
	...{ name: 'site', in: 'path' as const, required: true, schema: text, description: 'The name of a site.' }
};

export const DELIVERED = [
	{
		path: '/sites/{site}/head',
		summary: 'The released head of a page',
		description:
			'The released head of a page, as HTML or, for who accepts JSON, as JSON. With a strong ETag; a former path leads on (308). One of `path` and `address` is named.',
		parameters: [
			SITE,
			asked('path', 'The path of the page: `/walks/one.html`. A folder and its `index.html` are one.'),
			asked('address', 'Its whole address instead.'),
			{ ...asked('format', 'As which it comes, whatever is accepted.'), schema: { enum: ['html', 'json'] } },
			{ ...asked('or', 'With `empty`, a page that is not there gives an empty 200.'), schema: { const: 'empty' } }
		],
		responses: {
			'200': {
				description: 'The head.',
				content: {
					'text/html': { schema: text },
					'application/json': { schema: { $ref: '#/components/schemas/HeadJson' } }
				}
			},
			'304': { description: 'It is as the one that the asker has.' },
			'308': { description: 'The page has moved: `Location` is the head of where it is.' }
		}
	},
	{
		path: '/sites/{site}/manifest',
		summary: 'The web manifest of a site',
		description: 'The web manifest of a site, with its icons.',
		parameters: [SITE],
		responses: { '200': { description: 'The manifest.', content: { 'application/manifest+json': {} } } }
	}
] as const;
