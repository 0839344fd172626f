import { refusal, type Data, type Lists, type Maybe } from './refusal';

export const EDITING = {
	'changed-meanwhile': refusal(409, () => 'This was changed elsewhere meanwhile.'),
	'changed-again': refusal(
		409,
		({ author, made }: Maybe<'author' | 'made'>) =>
			`It stays: what it changed was changed again${made === undefined ? '' : ` by ${author} at ${made}`}. Take that back first.`
	),
	'page-not-there': refusal(404, () => 'There is no such page in this site.'),
	'edit-missing': refusal(
		404,
		({ edit }: Data<'edit'>) => `There is nothing to take back: no edit has the number ${edit}.`
	),
	'nothing-to-do-again': refusal(() => 'There is nothing to do again.'),
	'nothing-to-take-back': refusal(() => 'There is nothing to take back.'),
	'action-needs': refusal(({ key }: Data<'key'>) => `The action cannot be read: "${key}" is missing.`),
	'action-what': refusal(
		({ known }: Lists<'known'>) => `The action cannot be read: "do" is one of ${known.join(', ')}.`
	),
	'cell-refused': refusal(({ path, tag, why }: Data<'path' | 'tag' | 'why'>) => `${path}, ${tag}: ${why}`),
	'cells-broken': refusal(() => 'The cells cannot be read: each needs a path, a tag and a text.'),
	'cells-too-many': refusal(
		({ count, most }: Data<'count' | 'most'>) =>
			`${count} cells are more than the ${most} that are written at once. Put the pages out as CSV, and read that back.`
	),
	'change-needs': refusal(({ key }: Data<'key'>) => `The change cannot be read: "${key}" is missing.`),
	'change-needs-pages': refusal(() => 'The change cannot be read: it needs the paths of its pages, or a filter.'),
	'change-what': refusal(
		({ known }: Lists<'known'>) => `The change cannot be read: "do" is one of ${known.join(', ')}.`
	),
	'database-replaced': refusal(
		({ file }: Data<'file'>) =>
			`The database ${file} was replaced or deleted while it is in use: nothing more is written. Start Kephalon again.`
	),
	'edit-broken': refusal(({ wrong }: Data<'wrong'>) => `The edit cannot be read: ${wrong}.`),
	'field-has-values': refusal(
		({ contentType, field }: Data<'contentType' | 'field'>) =>
			`Pages of the type "${contentType}" have something under "${field}" already. Choose another name.`
	),
	'field-missing': refusal(
		404,
		({ contentType, field }: Data<'contentType' | 'field'>) => `The type "${contentType}" has no field "${field}".`
	),
	'field-name-broken': refusal(
		({ field }: Data<'field'>) => `“${field}” cannot name a field: it takes letters, digits and underscores.`
	),
	'field-taken': refusal(
		({ contentType, field }: Data<'contentType' | 'field'>) =>
			`The type "${contentType}" has a field "${field}" already. Choose another name.`
	),
	'going-back-removes': refusal(
		409,
		({ removes, all }: Data<'removes' | 'all'>) =>
			`Nothing is released: going back would take ${removes} of ${all} pages away. Go back again, saying that ${removes} pages leave, where that is meant.`
	),
	'home-among-them': refusal(
		() => 'The home page is among them: it would go. Leave it out, or make another page the home page first.'
	),
	'home-hidden': refusal(
		({ path, hidden, contentType }: Data<'path' | 'hidden' | 'contentType'>) =>
			`${path} cannot become the home page. ${
				hidden === 'off'
					? `Its type “${contentType}” is switched off: the site would have no home page. Switch the type on first.`
					: `It is ${hidden === 'draft' ? 'a draft' : 'private'}: the site would have no home page. Set it live first.`
			}`
	),
	'language-broken': refusal(
		({ language }: Data<'language'>) => `“${language}” is no language tag, such as en or pt-BR.`
	),
	'layer-unknown': refusal(({ layer }: Data<'layer'>) => `The change cannot be read: "${layer}" is no layer.`),
	'leads-to-itself': refusal(() => 'A page that is taken away cannot lead to itself. Choose another path.'),
	'long-edit-under-way': refusal(
		409,
		({ author, since }: Data<'author' | 'since'>) =>
			`${author} is putting in many pages at the moment (since ${since}). Release when that is done.`
	),
	'mapping-broken': refusal(
		({ where, why }: Data<'where' | 'why'>) =>
			`“${where}” leads to no field of a record: ${why}. Write a JSON Pointer, such as /offer/title, or a JSONPath, such as $.offers[*].title.`
	),
	'mapping-missing': refusal(
		({ contentType }: Data<'contentType'>) =>
			`The type “${contentType}” does not say where its fields stand in a record. Give it a mapping, or send fields.`
	),
	'source-broken': refusal(
		({ contentType, why }: Data<'contentType' | 'why'>) => `What the type “${contentType}” names is no source: ${why}.`
	),
	'record-of-none': refusal(
		404,
		({ page }: Data<'page'>) =>
			`No type names a source of live data that has ${page}. Say its path in the settings of one.`
	),
	'rules-not-released': refusal(
		409,
		({ site }: Data<'site'>) =>
			`No release of “${site}” has rules that are known. Release it once, or ask for those of the working copy.`
	),
	'working-not-delivered': refusal(
		403,
		() =>
			'What is not released is not delivered here. Ask the server that people work at, or for the rules that are released.'
	),
	'pushed-broken': refusal(({ why }: Data<'why'>) => `The page cannot be read: ${why}.`),
	'pushed-line-long': refusal(
		({ most }: Data<'most'>) => `A line is longer than ${most} bytes: end each page with a line.`
	),
	'site-changed': refusal(
		412,
		({ revision }: Data<'revision'>) =>
			`The site is at revision ${revision} by now: read it again, and send what is to be changed.`
	),
	'match-unknown': refusal(
		412,
		() => 'If-Match names nothing that a site was called: its ETag is that of GET /sites/{site}, such as "r7".'
	),
	'page-changed': refusal(
		412,
		({ path }: Data<'path'>) =>
			`${path} is not as it was when it was read: read it again, and send what is to be changed.`
	),
	'page-missing': refusal(404, ({ path }: Data<'path'>) => `There is no page "${path}" in this site.`),
	'part-refused': refusal(({ part, finding }: Data<'part' | 'finding'>) => `The ${part} cannot be kept: ${finding}`),
	'path-broken': refusal(
		({ path }: Data<'path'>) => `“${path}” is no path: it begins with a slash and holds no space, ? or #.`
	),
	'path-taken': refusal(({ path }: Data<'path'>) => `There is a page at ${path} already. Choose another path.`),
	'piece-missing': refusal(404, ({ piece }: Data<'piece'>) => `There is no piece "${piece}" there.`),
	'piece-taken': refusal(({ piece }: Data<'piece'>) => `There is a piece "${piece}" already. Choose another name.`),
	'picture-fact-fixed': refusal(
		({ fact }: Data<'fact'>) => `The change cannot be read: "${fact}" of a picture is read from its file and not set.`
	),
	'picture-missing': refusal(404, ({ src }: Data<'src'>) => `There is no picture "${src}" in this site.`),
	'picture-released': refusal(
		({ release, path }: Data<'release' | 'path'>) =>
			`Release ${release} still shows it on ${path}. Release what you have, then remove it.`
	),
	'picture-used-by-site': refusal(() => 'The site or one of its types uses it: remove it there first.'),
	'picture-used-on': refusal(({ page }: Data<'page'>) => `It is used on ${page}: remove it there first.`),
	'release-missing': refusal(
		({ release, first, last }: Data<'release'> & Maybe<'first' | 'last'>) =>
			`There is no release ${release}. ${last === undefined ? 'Nothing is released yet.' : `There are ${first} to ${last}.`}`
	),
	'replace-needs-words': refusal(() => 'Say which words are to be replaced.'),
	'rule-broken': refusal(({ wrong }: Data<'wrong'>) => `The rule cannot be read: ${wrong}.`),
	'rule-refused': refusal(({ why }: Data<'why'>) => `${why}`),
	'rule-refused-at': refusal(({ path, why }: Data<'path' | 'why'>) => `${path}: ${why}`),
	'setting-broken': refusal(({ wrong }: Data<'wrong'>) => `That cannot be kept: ${wrong}.`),
	'settings-broken': refusal(
		() => 'The change cannot be read: it needs a place and changes, and rules are set by themselves.'
	),
	'site-being-edited': refusal(
		503,
		() => 'The site is being edited at the moment: its pictures stay. Try again in a moment.'
	),
	'site-empty': refusal(
		404,
		({ site }: Data<'site'>) =>
			`The site "${site}" has no pages yet. Read some in with its set-up, or with kephalon import.`
	),
	'starting-set-missing': refusal(({ set }: Data<'set'>) => `There is no starting set "${set}".`),
	'state-unknown': refusal(({ known }: Lists<'known'>) => `A state is one of ${known.join(', ')}.`),
	'table-not-ours': refusal(
		({ own }: Data<'own'>) =>
			`The table has no column “path”, or none that begins with “${own}”: put it out from the room of pages first.`
	),
	'take-back-removes': refusal(
		409,
		({ removes, all }: Data<'removes' | 'all'>) =>
			`Nothing is taken back: ${removes} of ${all} pages would go, with what was written at them. Ask again, saying that ${removes} pages go, where that is meant.`
	),
	'taken-back-already': refusal(() => 'It is taken back already.'),
	'type-becomes-itself': refusal(() => 'Its pages cannot become pages of the type that goes. Choose another type.'),
	'type-has-pages': refusal(
		({ pages, contentType }: Data<'pages' | 'contentType'>) =>
			`${pages} ${pages === 1 ? 'page is' : 'pages are'} of the type "${contentType}". Say which type ${pages === 1 ? 'it becomes' : 'they become'}.`
	),
	'type-missing': refusal(
		404,
		({ contentType }: Data<'contentType'>) => `There is no type "${contentType}" in this site.`
	),
	'type-needs-name': refusal(() => 'A type needs a name of letters, digits, spaces and hyphens, such as “recipe”.'),
	'type-taken': refusal(
		({ contentType }: Data<'contentType'>) => `There is a type "${contentType}" already. Choose another name.`
	),
	'version-language-same': refusal(
		({ path, language }: Data<'path' | 'language'>) =>
			`${path} is in “${language}” itself. Choose another language for its version.`
	),
	'version-hidden': refusal(({ path, hidden, contentType }: Data<'path' | 'hidden' | 'contentType'>) =>
		hidden === 'off'
			? `The type “${contentType}” of ${path} is switched off: its readers would be led nowhere. Switch the type on first.`
			: `${path} is ${hidden === 'draft' ? 'a draft' : 'private'}: its readers would be led nowhere. Set it live first.`
	),
	'version-itself': refusal(() => 'That is this page itself. Name the page that says the same in the other language.'),
	'version-missing': refusal(
		({ path }: Data<'path'>) => `There is no page ${path} in this site. Make it first, or look at its path again.`
	),
	'version-taken': refusal(
		({ path, other, language }: Data<'path' | 'other' | 'language'>) =>
			`${path} names ${other} as its version in “${language}”. Part those two first.`
	),
	'versions-language-same': refusal(
		({ language }: Data<'language'>) =>
			`Both pages are in “${language}”. Give one of them its language first: versions differ by it.`
	),
	'words-too-long': refusal(
		({ key, length, most }: Data<'key' | 'length' | 'most'>) =>
			`“${key}” has ${length} characters; at most ${most} are taken.`
	)
};
