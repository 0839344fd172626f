import { misuse, refusal, type Data, type Lists, type Maybe } from './refusal';

export const READING = {
	'base-broken-seen': refusal(
		({ why, base, guess }: Data<'why' | 'base'> & Maybe<'guess'>) =>
			`${why} Seen: “${base}”.${guess === undefined ? '' : ` Did you mean ${guess}?`}`
	),
	'base-not-absolute': misuse(
		({ base, guess }: Data<'base' | 'guess'>) =>
			`The base address "${base}" is not an absolute http or https address.${guess}`
	),
	'csv-broken': refusal(({ why }: Data<'why'>) => `The file cannot be read as CSV: ${why}.`),
	'cursor-broken': refusal(
		() => 'This is no place of this list in this order. Begin without “after”, and go on with what “next” says.'
	),
	'fetch-failed': refusal(({ address, why }: Data<'address' | 'why'>) => `${address} cannot be fetched (${why}).`),
	'fetch-forbidden': refusal(
		({ address, why, from }: Data<'address' | 'why'> & Maybe<'from'>) =>
			`${address} is not fetched: it ${why}.${from === undefined ? '' : ` ${from} redirects to it.`}`
	),
	'fetch-name-forbidden': refusal(
		({ address, why }: Data<'address' | 'why'>) => `${address} is not fetched: its name ${why}.`
	),
	'fetch-no-host': refusal(({ host }: Data<'host'>) => `There is no ${host} to be found. Check the address.`),
	'fetch-redirects': refusal(
		({ address, most }: Data<'address' | 'most'>) =>
			`${address} redirects more than ${most} times. Name the address it ends at.`
	),
	'fetch-slow': refusal(
		({ address, seconds }: Data<'address' | 'seconds'>) =>
			`${address} does not answer within ${seconds} seconds. Try again later.`
	),
	'fetch-status': refusal(
		({ address, answer }: Data<'address' | 'answer'>) => `${address} answers with ${answer}. Check the address.`
	),
	'fetch-too-large': refusal(({ address, most }: Data<'address' | 'most'>) => `${address} is larger than ${most}.`),
	'file-not-json': refusal(({ file, why }: Data<'file' | 'why'>) => `${file} is not JSON: ${why}.`),
	'folder-is-file': refusal(
		({ folder }: Data<'folder'>) => `${folder} is not a folder. Name the folder that holds the site's files.`
	),
	'folder-missing': refusal(({ folder }: Data<'folder'>) => `There is no folder ${folder}. Check the path.`),
	'folder-nothing-read': refusal(({ why }: Data<'why'>) => `${why}`),
	'folder-unreadable': refusal(
		({ files, folder, first, why }: Data<'files' | 'folder' | 'first' | 'why'>) =>
			`None of the ${files} files in ${folder} could be read as a page. The first: ${first}, ${why}.`
	),
	'folder-without-pages': refusal(
		({ folder }: Data<'folder'>) =>
			`${folder} holds no page that is read (.html, .htm, .xhtml, also with a language behind).`
	),
	'from-not-whole': misuse(({ from }: Data<'from'>) => `“${from}” is no whole http or https address to read from.`),
	'json-broken': refusal(({ why }: Data<'why'>) => `The file cannot be read as JSON: ${why}.`),
	'json-entry-broken': refusal(({ entry }: Data<'entry'>) => `Entry ${entry} of the JSON list is no record.`),
	'json-without-list': refusal(() => 'The JSON holds no list of records, such as [{"path": "/a"}].'),
	'list-broken': refusal(({ from, why }: Data<'from' | 'why'>) => `${from} is no sitemap and no feed: ${why}.`),
	'list-elsewhere': refusal(
		({ entries, from, base }: Data<'entries' | 'from' | 'base'>) =>
			`None of the ${entries} entries of ${from} stands under ${base}.`
	),
	'list-packed': refusal(
		({ from, most }: Data<'from' | 'most'>) => `${from} cannot be unpacked, or is larger than ${most} MiB.`
	),
	'out-holds-folder': misuse(
		({ out }: Data<'out'>) => `--out ${out} holds the folder that is read. Name a folder beside it.`
	),
	'out-in-folder': misuse(
		({ out }: Data<'out'>) => `--out ${out} lies in the folder that is read. Name a folder beside it.`
	),
	'out-is-folder': misuse(
		() => `--out names the folder itself. Say --in-place to write over its files, or name another folder.`
	),
	'out-leads-away': refusal(
		({ to, target }: Data<'to' | 'target'>) =>
			`The folder of ${to} is a link that leads out of ${target}. Take the link away, or name another folder.`
	),
	'pattern-broken': misuse(
		({ text }: Data<'text'>) =>
			`“${text}” is no pattern with a language. Write it as 'fr/**=fr': a pattern, "=", a language tag.`
	),
	'pattern-fits-none': misuse(({ why }: Data<'why'>) => `${why}`),
	'picture-damaged': refusal(({ why }: Data<'why'>) => `The picture is damaged or ends too soon (${why}).`),
	'picture-empty': refusal(() => 'The file is empty.'),
	'picture-format': refusal(({ format }: Data<'format'>) => `The file is ${format}, which is no picture for a card.`),
	'picture-too-heavy': refusal(
		413,
		({ size, most }: Data<'size' | 'most'>) => `The file has ${size}; at most ${most} are taken.`
	),
	'picture-too-large': refusal(
		({ most }: Data<'most'>) =>
			`The picture has more than ${most} million pixels. Make it smaller: cards show 1,200 by 630.`
	),
	'picture-unreadable': refusal(() => 'The file is no picture that can be read, whatever its name says.'),
	'picture-without-size': refusal(() => 'The picture has no size.'),
	'probe-address-broken': refusal(
		({ address }: Data<'address'>) => `“${address}” is neither a whole http or https address nor a path of the site.`
	),
	'probe-needs-base': refusal(() => 'The site has no public base address that could be looked at.'),
	'readers-need-base': refusal(() => 'The site has no public base address that readers could be asked about.'),
	'readers-busy': refusal(
		502,
		({ reader }: Data<'reader'>) =>
			`${reader} was asked too often and does not listen again. Ask later: the rest waits.`
	),
	'readers-refuse': refusal(
		502,
		({ origin, why, said }: Data<'origin' | 'why'> & Maybe<'said'>) => `${said ?? `The readers at ${origin} ${why}.`}`
	),
	'readers-silent': refusal(
		502,
		({ origin }: Data<'origin'>) => `The readers at ${origin} do not answer. Are they still running?`
	),
	'revision-passed': refusal(
		({ site, revision, wanted }: Data<'site' | 'revision' | 'wanted'>) =>
			`"${site}" is at revision ${revision}, not at ${wanted}: it was changed meanwhile. Look again, then say the new one.`
	),
	'robots-fails': refusal(
		({ origin }: Data<'origin'>) =>
			`${origin}/robots.txt cannot be read: its server fails, and nothing may be read then. Try again later.`
	),
	'site-file-broken': refusal(
		({ file, places }: Data<'file'> & Lists<'places'>) =>
			`${file} is not a site file that can be read:\n${places.map((place) => `  ${place}`).join('\n')}`
	),
	'site-file-contradicts': refusal(
		({ file, faults }: Data<'file'> & Lists<'faults'>) =>
			`${file} contradicts itself:\n${faults.map((fault) => `  ${fault}`).join('\n')}`
	),
	'site-file-loses': refusal(
		409,
		({ count, things, more, revision }: Data<'count' | 'more' | 'revision'> & Lists<'things'>) =>
			`Nothing is read: ${count === 1 ? 'one thing that was written here would' : `${count} things that were written here would`} be lost, since the file does not say ${count === 1 ? 'it' : 'them'}:\n${things.map((one) => `  ${one}`).join('\n')}\n${Number(more) > 0 ? `  … and ${more} more\n` : ''}Where that is meant, say the revision that is to be replaced: --revision ${revision}.`
	),
	'site-file-missing': refusal(({ file }: Data<'file'>) => `There is no file ${file}. Check the path.`),
	'site-file-unreadable': refusal(({ file, why }: Data<'file' | 'why'>) => `The file ${file} cannot be read (${why}).`),
	'site-file-newer': refusal(
		({ file, version, known }: Data<'file' | 'version' | 'known'>) =>
			`${file} is a site file of version ${version}; this Kephalon reads up to version ${known}. Update Kephalon.`
	),
	'site-folder-elsewhere': misuse(
		({ folder }: Data<'folder'>) => `${folder} holds other files. Name a new folder, or one that holds a site file.`
	),
	'site-folder-none': refusal(
		({ folder }: Data<'folder'>) => `${folder} holds no site file: there is no site.json in it.`
	),
	'site-needs-name': refusal(() => 'The site needs a name: it stands in titles and on cards.'),
	'markdown-none': refusal(({ folder }: Data<'folder'>) => `${folder} holds no Markdown that can be read.`),
	'sheet-missing': misuse(
		({ sheet, sheets }: Data<'sheet'> & Lists<'sheets'>) =>
			`The workbook has no sheet “${sheet}”. There are: ${sheets.join(', ')}.`
	),
	'table-empty': refusal(() => 'The file holds no rows: only a line of headings, or nothing.'),
	'table-needs-path': refusal(
		() =>
			'No column gives the path. Match one to “path”: it says where a page stands; or let paths be made of the title.'
	),
	'table-too-long': refusal(
		({ rows, most }: Data<'rows' | 'most'>) =>
			`The file holds ${rows} rows, more than the ${most} that one import may have.`
	),
	'table-unreadable': refusal(({ why }: Data<'why'>) => `No row could be read as a page. The first: ${why}.`),
	'type-name-broken': refusal(
		({ contentType, pattern }: Data<'contentType' | 'pattern'>) =>
			`“${contentType}” cannot name the type of ${pattern}: it takes letters, digits, spaces and hyphens.`
	),
	'vector-too-much': refusal(({ why }: Data<'why'>) => `The vector file ${why} to be drawn. Export it as PNG.`),
	'vector-unsafe': refusal(() => 'The vector file holds a script or something from elsewhere. Export it as PNG.'),
	'verify-nothing-released': refusal(
		({ site }: Data<'site'>) => `Nothing of ${site} is released, so there is nothing to compare with. Release it first.`
	),
	'verify-running': refusal(
		409,
		({ done }: Data<'done'>) =>
			`Someone is looking at what is served already: ${done} pages so far. Wait for it, or stop it.`
	),
	'via-address-broken': misuse(
		({ site }: Data<'site'>) => `“${site}” is no public address that it could stand in for.`
	),
	'via-not-named': refusal(
		({ via }: Data<'via'>) =>
			`${via} was not named as a machine that may be asked. Start Kephalon with --source and its address.`
	),
	'via-broken': misuse(
		({ text }: Data<'text'>) =>
			`“${text}” is no machine to fetch from. Write it as http://127.0.0.1:5173, without a path.`
	),
	'web-needs-base': misuse(() => 'A new site needs --base, the public address of its pages.'),
	'web-unreadable': refusal(({ address, why }: Data<'address' | 'why'>) => `${address} cannot be read: ${why}.`),
	'web-without-pages': refusal(
		({ from, first }: Data<'from' | 'first'>) => `No page could be read from ${from}.${first}`
	),
	'workbook-broken': refusal(({ why }: Data<'why'>) => `The workbook cannot be read: ${why}. Save it again as .xlsx.`),
	'workbook-large': refusal(
		({ most }: Data<'most'>) => `The workbook unpacks to more than ${most} MB. Save the sheet alone, or as CSV.`
	),
	'workbook-none': refusal(() => 'The file is an archive, but no .xlsx workbook. Save the table as .xlsx or as CSV.'),
	'workbook-old': refusal(() => 'The file is an old workbook, or one under a password. Save it as .xlsx without one.')
};
