import { misuse, refusal, type Data, type Lists } from './refusal';

export const COMMAND = {
	'fail-on-unknown': misuse(
		({ kind, known }: Data<'kind'> & Lists<'known'>) =>
			`There is no “${kind}” to fail on. Name some of ${known.join(', ')}.`
	),
	'demo-option': misuse(
		({ option }: Data<'option'>) =>
			`Unknown option ${option}. The demo knows --fresh, which starts over, and --port, which says where it is.`
	),
	'demo-port': misuse(({ port }: Data<'port'>) => `“${port}” is no port for the demo. Write a number from 1 to 65505.`),
	'address-not-whole': misuse(({ address }: Data<'address'>) => `“${address}” is no whole http or https address.`),
	'baseline-broken': misuse(
		({ file }: Data<'file'>) => `${file} is no baseline that can be read. Delete it to write it anew.`
	),
	'column-missing': misuse(
		({ column, columns }: Data<'column'> & Lists<'columns'>) =>
			`There is no column “${column}”. The columns: ${columns.join(', ')}.`
	),
	'copy-needs-folder': misuse(() => 'Name a folder for the copy with --out, or say --in-place.'),
	'delivery-ended': refusal(({ exit }: Data<'exit'>) => `A process of the delivery ended at once, with code ${exit}.`),
	'file-missing': refusal(({ name }: Data<'name'>) => `There is no file ${name}. Check the path.`),
	'flags-of-folder': misuse(
		() => '--base, --site, --type and --fetch-pictures go with a folder; a site file says these itself.'
	),
	'folder-needs': misuse(({ needs }: Data<'needs'>) => `A folder needs ${needs}.`),
	'fragments-elsewhere': misuse(
		({ folder }: Data<'folder'>) => `${folder} holds other files. Name a new folder, or one that "fragments" made.`
	),
	'front-matter-tag': misuse(
		({ tag, tags }: Data<'tag'> & Lists<'tags'>) =>
			`“${tag}” has no place in front matter. There are: ${tags.join(', ')}.`
	),
	'host-missing': refusal(({ host }: Data<'host'>) => `This machine has no address ${host}. Name another with --host.`),
	'map-broken': misuse(({ text }: Data<'text'>) => `--map “${text}”: write a column, "=" and the field that it gives.`),
	'release-or-working': misuse(
		() => 'Heads are taken from a release or from the working copy: leave out --release or --working.'
	),
	'name-site-or-file': misuse(() => 'Name the site with --site, or a site file with --file.'),
	'name-the-pages': misuse(() => 'Name one page with --path, or all with --all.'),
	'name-the-site': misuse(() => 'Name the site with --site.'),
	'new-site-needs-base': misuse(() => 'A new site needs --base, the public address of its pages, whole.'),
	'not-built': refusal(() => 'The web application is not built. Run npm run build first.'),
	'nothing-to-check': misuse(
		() => 'Say what is to be checked: --site NAME for a site of the database, or a folder or site file.'
	),
	'nothing-to-read': misuse(() => 'Name what to read: a folder, a file, or --from an address.'),
	'path-missing': misuse(({ path }: Data<'path'>) => `There is no file or folder ${path}.`),
	'server-not-there': refusal(
		({ server }: Data<'server'>) =>
			`Nothing answers at ${server}. Start it with kephalon serve, or name another with --server.`
	),
	'path-not-of-site': refusal(
		({ path }: Data<'path'>) => `The site has no page ${path}. Paths begin with a slash, as in /x.html.`
	),
	'port-forbidden': refusal(
		({ port }: Data<'port'>) => `Port ${port} may not be used by this user. Name one above 1023 with --port.`
	),
	'port-taken': refusal(({ port }: Data<'port'>) => `Port ${port} is taken. Name another with --port.`),
	'ports-taken': refusal(
		({ first, last }: Data<'first' | 'last'>) =>
			`The ports ${first} to ${last} are all taken. Name another with --port.`
	),
	'rate-broken': misuse(() => '--rate is a number above 0, and --sample a whole number from 1.'),
	'reader-missing': misuse(
		({ reader, readers }: Data<'reader'> & Lists<'readers'>) =>
			`There is no reader “${reader}”. The readers: ${readers.join(', ')}.`
	),
	'readers-address-broken': misuse(
		({ readers }: Data<'readers'>) => `“${readers}” is no http or https address. Write it as http://127.0.0.1:4890.`
	),
	'source-missing': refusal(({ source }: Data<'source'>) => `There is no file or folder ${source}. Check the path.`),
	'table-needs-site': misuse(() => 'A table needs --site, the name of the site.'),
	'table-needs-type': misuse(() => 'A table is of one type: name it once with --type.'),
	'type-pattern-broken': misuse(
		({ text }: Data<'text'>) => `--type “${text}”: write a pattern, "=" and the name of a type.`
	),
	'web-needs-site': misuse(() => 'Reading from the web needs --site, the name of the site.')
};
