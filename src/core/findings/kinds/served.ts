import { ENGLISH_REASONS, type NoPage, type NoPicture, type RobotsFailed } from '../../readers/reasons';
import { kind } from './kind';

type At = { readonly address: string };
type Of = { readonly tag: string; readonly line: number };

const { noPage, noPicture, robotsFailed, what } = ENGLISH_REASONS;

/** What can be wrong with a page as it is served. */
export const SERVED_KINDS = {
	unreachable: kind<At & { readonly why: NoPage; readonly isInner: boolean }>(
		10,
		({ why }) => `It cannot be fetched: ${noPage(why)}`,
		({ isInner }) =>
			isInner
				? 'Name the machine that stands in for the public site with --via: it is asked then under the public name.'
				: 'See that the server answers at this address.'
	),
	'leads-to-shut': kind<{ readonly to: string; readonly readers: readonly string[] }>(
		8,
		({ to, readers }) => `It leads to ${to}, from which robots.txt keeps ${readers.join(', ')}`,
		() => 'Let robots.txt allow readers of links to fetch where shared addresses lead.'
	),
	'same-everywhere': kind<{ readonly title: string; readonly other: string }>(
		8,
		({ title, other }) =>
			`Scripts write the page, and its head is the same at ${other}: every address shares as “${title}”`,
		() => 'Let the server write the head of each page into it.'
	),
	'double-encoded': kind<Of & { readonly value: string }>(
		6,
		({ tag, value }) => `${tag} was encoded twice: “${value}”`,
		() => 'Read the text as UTF-8 where it comes from, and encode it once.',
		({ tag }) => `${tag} was encoded twice`
	),
	'no-picture-preview': kind<{ readonly value: string }>(
		2,
		({ value }) => `It says “${value}”: search shows no picture of it`,
		() => 'Say max-image-preview:large, if pictures may be shown.'
	),
	'picture-moves': kind<{ readonly readers: readonly string[] }>(
		3,
		({ readers }) =>
			`The picture moves, and ${readers.join(', ')} ${readers.length === 1 ? 'shows' : 'show'} none that does`,
		() => 'Name a picture that stands still.'
	),
	'blocked-by-robots': kind<{ readonly readers: readonly string[]; readonly line: number | undefined }>(
		8,
		({ readers, line }) => `robots.txt shuts out ${readers.join(', ')}${line ? `, in line ${line}` : ''}`,
		() => 'Let robots.txt allow readers of links to fetch the pages that are shared.'
	),
	'robots-failing': kind<{ readonly readers: readonly string[]; readonly how: RobotsFailed }>(
		8,
		({ readers, how }) =>
			`robots.txt ${robotsFailed(how)}, and while it does ${readers.join(', ')} ${readers.length === 1 ? 'reads' : 'read'} nothing here`,
		() => 'Let robots.txt answer: with 404 where there is none.'
	),
	'leads-nowhere': kind<{ readonly status: number }>(
		9,
		({ status }) => `Its server answers with ${status} and leads nowhere: no reader has a page to make a card of`,
		() => 'Let the address answer with 200, or lead to one that does.'
	),
	'leads-on': kind<{ readonly to: string; readonly readers: readonly string[] }>(
		5,
		({ to, readers }) =>
			`It leads on to ${to} by a refresh, which ${readers.join(', ')} ${readers.length === 1 ? 'does' : 'do'} not follow`,
		() => 'Lead on by a redirect (301 or 302).'
	),
	'no-page': kind<{ readonly is: string }>(
		8,
		({ is }) => `It is served as ${what(is)}: no reader takes it for a page`,
		() => 'Serve pages as text/html, to be shown.'
	),
	'fails-for': kind<{ readonly readers: readonly string[]; readonly how: NoPage }>(
		8,
		({ readers, how }) => `${readers.join(', ')} ${readers.length === 1 ? 'gets' : 'get'} no page: ${noPage(how)}`,
		() => 'Let every reader have the page that the others get.'
	),
	'endless-page': kind<{ readonly bytes: number; readonly packed: number | undefined }>(
		3,
		({ bytes, packed }) =>
			`It has more than ${Math.round(bytes / 1_000_000)} MB${packed === undefined ? '' : `, packed into ${Math.round(packed / 1000).toLocaleString('en')} kB`}: readers stop on the way`,
		() => 'Share a page that is shorter, and see that its end comes.'
	),
	'no-charset': kind<Record<string, never>>(
		3,
		() => 'It does not say its encoding, and has letters beyond ASCII: readers guess',
		() => 'Say charset=utf-8 in Content-Type, or in a meta element among the first 1024 bytes.'
	),
	'broken-characters': kind<Of & { readonly value: string }>(
		6,
		({ tag, value }) => `${tag} has characters that could not be read: “${value}”`,
		() => 'Send the page in the encoding that it says.'
	),
	'template-left': kind<Of & { readonly seen: string }>(
		7,
		({ tag, seen }) => `${tag} shows “${seen}”: a template was not filled in`,
		() => 'Fill it in on the server: readers run no scripts.',
		({ tag }) => `${tag} shows a template that was not filled in`
	),
	'escaped-twice': kind<Of & { readonly seen: string }>(
		5,
		({ tag, seen }) => `${tag} shows “${seen}”: it was escaped twice`,
		() => 'Escape its text once.',
		({ tag }) => `${tag} was escaped twice`
	),
	'names-home': kind<Of>(
		7,
		({ tag }) => `${tag} names the home page: what is shared of this page counts for that one`,
		({ tag }) => `Let ${tag} name the page itself.`
	),
	'error-page': kind<{ readonly status: number }>(
		8,
		({ status }) => `Its server answers with ${status}`,
		() => 'Let the address answer with 200.'
	),
	'not-found-served': kind<{ readonly title: string }>(
		6,
		({ title }) => `It answers as found, and calls itself “${title}”`,
		() => 'Let a page that is not there answer with 404: search lists it otherwise, and cards show it.'
	),
	'sign-in-page': kind<Record<string, never>>(
		7,
		() => 'It asks to sign in: readers see that page and not the one meant',
		() => 'Let readers of links fetch it without signing in.'
	),
	'redirected-elsewhere': kind<{ readonly to: string; readonly readers: readonly string[] }>(
		5,
		({ to, readers }) =>
			`It leads to another host, ${to}: ${readers.join(', ')} ${readers.length === 1 ? 'does' : 'do'} not follow`,
		() => 'Share the address where it ends.'
	),
	'beyond-reading': kind<{
		readonly tags: readonly string[];
		readonly readers: readonly string[];
		readonly bytes: number;
	}>(
		7,
		({ tags, readers, bytes }) =>
			`${tags.join(', ')} ${tags.length === 1 ? 'stands' : 'stand'} beyond the first ${Math.round(bytes / 1000)} kB, which is all that ${readers.join(', ')} ${readers.length === 1 ? 'reads' : 'read'}`,
		() => 'Put the tags before styles and scripts.'
	),
	'late-charset': kind<Record<string, never>>(
		4,
		() => 'The encoding is declared after the first 1,024 bytes',
		() => 'Put <meta charset> first in the head.'
	),
	'wrong-charset': kind<{ readonly header: string; readonly markup: string }>(
		6,
		({ header, markup }) => `The server says ${header}, the page says ${markup}`,
		() => 'Let both say the encoding that the page is in.'
	),
	'unknown-charset': kind<{ readonly label: string }>(
		4,
		({ label }) => `Its server names an encoding that is none, “${label}”: readers guess`,
		() => 'Say charset=utf-8 in Content-Type.'
	),
	'picture-type': kind<At & { readonly said: string; readonly is: string }>(
		4,
		({ address, said, is }) => `The picture ${address} is served as ${said}, and is ${what(is)}`,
		() => 'Serve it as what it is: some readers take no other.'
	),
	'picture-apart': kind<At & { readonly why: NoPicture; readonly readers: readonly string[] }>(
		7,
		({ address, why, readers }) => `For ${readers.join(', ')} the picture ${address} ${noPicture(why)}`,
		() => 'Let every reader fetch the picture that the others get.'
	),
	'scheme-address': kind<{ readonly tag: string; readonly line: number; readonly scheme: string }>(
		7,
		({ tag, scheme, line }) => `${tag} is an address of ${scheme}:, which no reader fetches (line ${line})`,
		({ tag }) => `Name a whole https address in ${tag}.`,
		({ tag, scheme }) => `${tag} is an address of ${scheme}:, which no reader fetches`
	),
	'relative-address': kind<Of & { readonly value: string }>(
		5,
		({ tag, value }) => `${tag} is a relative address, “${value}”`,
		() => 'Write the whole address.',
		({ tag }) => `${tag} is a relative address`
	),
	'local-served': kind<Of & { readonly value: string }>(
		9,
		({ tag, value }) => `${tag} leads to this machine or a private network, “${value}”`,
		() => 'Set the public base address, and release again.',
		({ tag }) => `${tag} leads to this machine or a private network`
	),
	'missing-tag': kind<{ readonly tag: string; readonly readers: readonly string[] }>(
		4,
		({ tag, readers }) =>
			`There is no ${tag}, which ${readers.join(', ')} ${readers.length === 1 ? 'asks' : 'ask'} for`,
		() => 'See that the head is written into the page as served.'
	),
	'doubled-tag': kind<Of & { readonly other: number; readonly differs: boolean }>(
		4,
		({ tag, line, other, differs }) =>
			`${tag} stands twice, in lines ${line} and ${other}${differs ? ', and says two things' : ''}`,
		() => 'Two tools write it: switch it off in one of them.',
		({ tag, differs }) => `${tag} stands twice${differs ? ', and says two things' : ''}`
	),
	'noindex-served': kind<{ readonly value: string }>(
		5,
		({ value }) => `It says “${value}”: no search lists it`,
		() => 'Take it away, if the page is meant to be found.'
	),
	'noindex-for': kind<{ readonly readers: readonly string[] }>(
		5,
		({ readers }) => `It tells ${readers.join(', ')} by name not to list it`,
		() => 'Take that away, if the page is meant to be found.'
	),
	'picture-missing': kind<{ readonly address: string; readonly why: NoPicture }>(
		7,
		({ address, why }) => `The picture ${address} ${noPicture(why)}`,
		() => 'Put the picture where its address says, or choose another.'
	),
	'served-heavy': kind<{ readonly bytes: number; readonly readers: readonly string[] }>(
		4,
		({ bytes, readers }) =>
			`The picture has ${(bytes / 1_000_000).toFixed(1)} MB, more than ${readers.join(', ')} ${readers.length === 1 ? 'takes' : 'take'}`,
		() => 'Make it lighter: 1,200 by 630 pixels need no more than 300 kB.'
	),
	'picture-unreadable': kind<{ readonly address: string; readonly type: string }>(
		7,
		({ type }) => `What stands at the picture’s address is ${what(type)}`,
		() => 'Let the address answer with the picture itself.'
	),
	'picture-shut': kind<{ readonly readers: readonly string[] }>(
		5,
		({ readers }) => `The robots.txt of the picture’s host keeps ${readers.join(', ')} from it`,
		() => 'Let robots.txt allow readers of links to fetch the pictures of cards.'
	),
	'picture-form': kind<{ readonly form: string; readonly readers: readonly string[] }>(
		6,
		({ form, readers }) => `The picture is ${form}, which ${readers.join(', ')} cannot read`,
		() => 'Name a JPEG or PNG.'
	),
	'picture-mark': kind<{ readonly width: number; readonly height: number }>(
		7,
		({ width, height }) => `The picture has ${width} by ${height} pixels: it is a mark, and no reader shows it`,
		() => 'Name a picture of 1,200 by 630 pixels.'
	),
	'served-small': kind<{
		readonly width: number;
		readonly height: number;
		readonly needed: number;
		readonly readers: readonly string[];
	}>(
		3,
		({ width, height, needed, readers }) =>
			`The picture has ${width} by ${height} pixels; ${readers.join(', ')} ${readers.length === 1 ? 'shows' : 'show'} it large from ${needed} on`,
		() => 'Name one of 1,200 by 630 pixels.'
	),
	'picture-lies': kind<{ readonly said: string; readonly is: string }>(
		2,
		({ said, is }) => `Its tags say that the picture is ${said}; it is ${is}`,
		() => 'Release again, so that the tags say what it is.'
	),
	'needs-scripts': kind<Record<string, never>>(
		8,
		() => 'Its head is empty until scripts fill it, and no reader of links runs scripts',
		() => 'Let the server write the head into the page.'
	),
	'differs-by-reader': kind<{ readonly readers: readonly string[] }>(
		3,
		({ readers }) => `${readers.join(', ')} ${readers.length === 1 ? 'is' : 'are'} given another page than others`,
		() => 'Serve everyone the same head.'
	),
	'below-head': kind<{ readonly tags: readonly string[] }>(
		6,
		({ tags }) => `${tags.join(', ')} ${tags.length === 1 ? 'stands' : 'stand'} below the head`,
		() => 'Something ends the head too soon: put the tags before it.'
	),
	broken: kind<{ readonly how: NoPage; readonly readers: readonly string[] }>(
		6,
		({ how, readers }) =>
			`The answer is broken${readers.length > 0 ? ` for ${readers.join(', ')}` : ''}: ${noPage(how)}`,
		() => 'Mend the server: readers give up here.'
	)
};
