import { refusal, type Data, type Lists, type Maybe } from './refusal';

export const GROUND = {
	'body-not-json': refusal(400, ({ why }: Data<'why'>) => `What was sent is not JSON: ${why}.`),
	'body-broken': refusal(({ at, why }: Data<'at' | 'why'>) => `What was sent is not what is expected: “${at}” ${why}.`),
	'query-broken': refusal(
		400,
		({ at, why }: Data<'at' | 'why'>) => `The address asks for what is not there: “${at}” ${why}.`
	),
	'method-other': refusal(
		405,
		({ method, methods }: Data<'method'> & Lists<'methods'>) =>
			`${method} does nothing here; there is ${methods.join(', ')}.`
	),
	'body-too-large': refusal(413, () => 'What was sent is too large to be taken.'),
	'other-origin': refusal(403, () => 'Another site may not change anything here.'),
	'body-of-other-kind': refusal(415, () => 'Send JSON, or a picture.'),
	'hosts-many': refusal(400, () => 'A request names one host.'),
	'host-foreign': refusal(403, ({ host }: Data<'host'>) => `Kephalon answers on this machine only, not as "${host}".`),
	'address-missing': refusal(404, () => 'There is nothing at this address.'),
	'address-broken': refusal(400, () => 'The address is not in percent-encoding.'),
	'released-unreadable': refusal(503, () => 'What is released cannot be read at the moment. Try again.'),
	failed: refusal(500, () => 'Kephalon failed; its log says why.'),
	'head-of-what': refusal(400, () => 'Name the page by ?path=/x or by ?address=https://…, one of the two.'),
	'site-not-there': refusal(404, ({ site }: Data<'site'>) => `There is no site "${site}".`),
	'site-not-released': refusal(
		404,
		({ site }: Data<'site'>) => `Nothing of the site "${site}" is released yet. Release it first.`
	),
	'page-not-released': refusal(
		404,
		({ release, page }: Data<'release' | 'page'>) => `Release ${release} has no page at ${page}.`
	),
	'work-missing': refusal(404, () => 'There is no such work of yours. It is remembered as long as the server runs.'),
	'fields-broken': refusal(
		({ fields }: Data<'fields'>) =>
			`“${fields}” names no members. They are named with commas between, and with dots within: path,title or pages.path,next.`
	),
	'source-away': refusal(
		503,
		({ page, why }: Data<'page' | 'why'>) => `The source of ${page} is away, and nothing was known of it. ${why}`
	),
	'media-missing': refusal(404, ({ name }: Data<'name'>) => `There is no picture ${name} in the library.`),
	'media-not-now': refusal(503, () => 'The picture cannot be made now. Try again in a moment.'),
	'manifest-missing': refusal(404, () => 'The site has no square icon in the library to make a manifest of.'),
	'database-busy': refusal(
		503,
		({ file }: Data<'file'>) =>
			`The database ${file} is locked by another program. Close that program, or wait until it is done, and try again.`
	),
	'database-readonly': refusal(
		({ file }: Data<'file'>) =>
			`The database ${file} is read-only. Make the file and its folder writable, or name another file with --db.`
	),
	'database-cannot-be-opened': refusal(
		({ file }: Data<'file'>) =>
			`The database ${file} cannot be opened. Check that the path is a file in a folder you may write to.`
	),
	'database-is-none': refusal(
		({ file }: Data<'file'>) =>
			`The database ${file} is not a database. Name another file with --db; this one was left as it is.`
	),
	'database-corrupt': refusal(
		({ file }: Data<'file'>) => `The database ${file} is damaged. Restore it from a backup; it was left as it is.`
	),
	'database-disk-full': refusal(
		({ file }: Data<'file'>) =>
			`The database ${file} could not grow: the disk is full. Nothing was changed. Free some space and try again.`
	),
	'database-disk-fails': refusal(
		({ file }: Data<'file'>) =>
			`The database ${file} could not be read or written. Check the disk and its free space. Nothing was changed.`
	),
	'database-folder-closed': refusal(
		({ file }: Data<'file'>) =>
			`The database ${file} cannot be made: the folder is not writable. Name another file with --db.`
	),
	'database-folder-in-the-way': refusal(
		({ file }: Data<'file'>) =>
			`The database ${file} cannot be made: a file stands where its folder should be. Name another file with --db.`
	),
	'database-disk-readonly': refusal(
		({ file }: Data<'file'>) =>
			`The database ${file} cannot be made: the disk is read-only. Name another file with --db.`
	),
	'file-closed': refusal(
		({ file }: Data<'file'>) => `${file} may not be read or written by this user. Change its rights, or name another.`
	),
	'file-not-there': refusal(({ file }: Data<'file'>) => `${file} is not there. Check the path.`),
	'file-under-file': refusal(
		({ file }: Data<'file'>) => `${file} is not there: a file stands where a folder should be. Check the path.`
	),
	'file-is-folder': refusal(({ file }: Data<'file'>) => `${file} is a folder where a file should be. Check the path.`),
	'file-in-the-way': refusal(({ file }: Data<'file'>) => `${file} stands in the way. Take it away, or name another.`),
	'file-disk-readonly': refusal(({ file }: Data<'file'>) => `${file} lies on a disk that is read-only. Name another.`),
	'file-disk-full': refusal(
		({ file }: Data<'file'>) => `${file} could not be written: the disk is full. Free some space and try again.`
	),
	'files-too-many': refusal(
		({ file }: Data<'file'>) => `${file} could not be opened: too many files are open. Try again in a moment.`
	),
	'backup-folder-full': refusal(
		({ folder }: Data<'folder'>) =>
			`The folder ${folder} is not empty. Name one that is: a backup never writes over anything.`
	),
	'backup-in-the-way': refusal(
		({ file }: Data<'file'>) =>
			`${file} stands where the backup would go. Move it away first, or name another file with --db.`
	),
	'backup-missing': refusal(
		({ folder }: Data<'folder'>) => `There is no backup in ${folder}: it holds no database (.db).`
	),
	'base-broken': refusal(
		({ base }: Data<'base'>) =>
			`“${base}” is no public base address: an absolute http or https address is needed, such as https://site.example/.`
	),
	'body-broken-off': refusal(() => 'What was sent did not come whole. Send it again.'),
	'body-missing': refusal(() => 'Nothing was sent; an object with names and values is expected, at least {}.'),
	'body-no-record': refusal(
		({ what }: Data<'what'>) => `What was sent is ${what}; an object with names and values is expected.`
	),
	'content-folder-closed': refusal(
		({ folder, told }: Data<'folder' | 'told'>) => `The folder ${folder} may not be read, or is not there. ${told}`
	),
	'content-folder-not-whole': refusal(({ told }: Data<'told'>) => `Name the folder by its whole path. ${told}`),
	'database-damaged': refusal(
		({ name, fault }: Data<'name' | 'fault'>) =>
			`The database ${name} is damaged (${fault}). Restore an earlier backup; it was left as it is.`
	),
	'database-empty': refusal(
		({ path }: Data<'path'>) =>
			`The file ${path} is empty: it is no database, and was left as it is. Name another with --db, or begin one with kephalon import.`
	),
	'database-foreign': refusal(
		({ file }: Data<'file'>) => `The file ${file} is a database of another program. Name another file with --db.`
	),
	'database-missing': refusal(
		({ path }: Data<'path'>) => `There is no database ${path}. Name it with --db, or begin one with kephalon import.`
	),
	'database-newer': refusal(
		({ path, version, known }: Data<'path' | 'version' | 'known'>) =>
			`The database ${path} was written by a newer Kephalon (version ${version}; this one knows up to ${known}). Update Kephalon, or name another file.`
	),
	'disk-full': refusal(() => 'The disk is full. Free some space and try again.'),
	'filter-too-long': refusal(
		({ length, most }: Data<'length' | 'most'>) => `The filter has ${length} characters; at most ${most} are kept.`
	),
	'filters-full': refusal(
		({ most }: Data<'most'>) => `There are ${most} filters with names already. Take one away that nobody needs.`
	),
	'too-many-tries': refusal(
		({ most }: Data<'most'>) => `At most ${most} edits are tried against each other at a time.`
	),
	'idempotency-key-broken': refusal(({ most }: Data<'most'>) => `An Idempotency-Key has 1 to ${most} characters.`),
	'idempotency-key-used': refusal(() => 'This Idempotency-Key was sent with something else before. Send another key.'),
	'launch-full': refusal(({ most }: Data<'most'>) => `At most ${most} items are ticked.`),
	'no-content-folders': refusal(
		() => 'No folder may be read over the web. Start Kephalon with --content and the folder to read from.'
	),
	'no-database': refusal(() => 'No database is named. Start the web application with the kephalon command.'),
	'no-layout': refusal(
		({ contentType }: Maybe<'contentType'>) =>
			`${contentType === undefined ? 'No type has a' : `The type "${contentType}" has no`} layout for share pictures. Choose one on the bench, under Share picture.`
	),
	'no-readers': refusal(() => 'No readers are named. Start Kephalon with --readers and their address.'),
	'recipe-broken': refusal(
		({ wrong }: Data<'wrong'>) => `The share picture cannot be drawn: ${wrong}. Boxes lie within 1200 by 630.`
	),
	'release-not-there': refusal(
		404,
		({ release, latest }: Data<'release'> & Maybe<'latest'>) =>
			`There is no release ${release} to go back to.${latest === undefined ? ' Nothing is released yet.' : ` The releases end with ${latest}, which is served now.`}`
	),
	'release-removes': refusal(
		409,
		({ removes, released }: Data<'removes' | 'released'>) =>
			`Nothing is released: it would take ${removes} of ${released} pages away. Release again, saying that ${removes} pages leave, where that is meant.`
	),
	'release-without-home': refusal(
		({ hidden, contentType }: Maybe<'hidden' | 'contentType'>) =>
			`Nothing is released: the home page would go, since ${
				hidden === undefined
					? 'there is no page at /'
					: hidden === 'off'
						? `its type “${contentType}” is switched off`
						: `it is set to ${hidden}`
			}. Set it live, or make another page the home page.`
	),
	'site-missing': refusal(
		404,
		({ site, sites }: Data<'site'> & Lists<'sites'>) =>
			`There is no site "${site}". ${sites.length > 0 ? `Sites there: ${sites.map((one) => `"${one}"`).join(', ')}.` : 'It holds no site yet: begin with kephalon import.'}`
	),
	'site-taken': refusal(({ name }: Data<'name'>) => `There is a site "${name}" already. Choose another name.`),
	'sitemap-missing': refusal(404, ({ name }: Data<'name'>) => `There is no sitemap "${name}" of this site.`),
	stopped: refusal(() => 'Stopped.'),
	'suppression-needs-reason': refusal(() => 'Say why it is set aside: others will ask.'),
	'table-file-missing': refusal(() => 'The file of the table is missing behind what is said of it.'),
	'too-much-work': refusal(() => 'Too much is being worked on already. Wait a moment and try again.'),
	'work-too-large': refusal(() => 'The work needed more memory than it may have. It was ended; nothing was changed.'),
	'work-too-long': refusal(
		({ seconds }: Data<'seconds'>) => `The work took longer than ${seconds} seconds. It was ended; nothing was changed.`
	)
};
