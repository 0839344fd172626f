import { refusal, type Data, type Lists } from './refusal';

export const PEOPLE = {
	'not-signed-in': refusal(401, () => 'Sign in first.'),
	'site-private': refusal(
		401,
		({ site }: Data<'site'>) =>
			`“${site}” is private: its heads go to whoever has a role there, and to keys of it that may read. Send one as “Authorization: Bearer kephalon_…”. One that was sent has ended, or is for something else.`
	),
	'sign-in-wrong': refusal(401, () => 'The name or the password is not right.'),
	'sign-in-wait': refusal(
		429,
		({ seconds }: Data<'seconds'>) => `That went wrong too often. Try again in ${seconds} seconds.`
	),
	'too-much-at-once': refusal(
		429,
		({ most }: Data<'most'>) => `${most} of your requests are being worked on. Wait until one is done.`
	),
	'too-many-requests': refusal(429, () => 'Too many requests from your address. Try again in a second.'),
	'not-allowed': refusal(
		403,
		({ what, site, who }: Data<'what' | 'site' | 'who'>) => `You may not ${what} at ${site}. ${who}`
	),
	'not-allowed-anywhere': refusal(403, ({ who }: Data<'who'>) => `Only an owner of every site may do this. ${who}`),
	'setup-of-others': refusal(
		403,
		() => 'Only an owner of every site makes a new one, and only its builders read content into one that is there.'
	),
	'beyond-area': refusal(
		403,
		({ pages, first, who }: Data<'pages' | 'first' | 'who'>) =>
			`It reaches beyond your area: ${pages === 1 ? 'one page lies' : `${pages} pages lie`} outside of it, such as ${first}. Nothing was changed. ${who}`
	),
	'release-beyond-area': refusal(
		403,
		({ first, who }: Data<'first' | 'who'>) =>
			`You release the pages of your area, one by one: ${first} would go out with them. Nothing was released. ${who}`
	),
	'beyond-role': refusal(
		403,
		({ what, who }: Data<'what' | 'who'>) => `It would change ${what}, which you may not. Nothing was changed. ${who}`
	),
	'password-length': refusal(
		({ least, most }: Data<'least' | 'most'>) =>
			`A password has ${least} to ${most} characters; several words are easy to remember.`
	),
	'password-common': refusal(
		() => 'Many people have this password: it is among the first that are tried. Take another.'
	),
	'password-name': refusal(() => 'The password is like the name. Take another.'),
	'password-old-wrong': refusal(403, () => 'The old password is not right.'),
	'passkey-needs-name': refusal(
		({ host }: Data<'host'>) =>
			`A passkey is bound to a name, and ${host} is an address. Open Kephalon under its name, on this machine as http://localhost.`
	),
	'passkey-late': refusal(401, () => 'That took too long, or was answered before. Try again.'),
	'passkey-wrong': refusal(401, () => 'This passkey does not open anything here.'),
	'passkey-missing': refusal(404, () => 'There is no such passkey of yours.'),
	'passkeys-many': refusal(({ most }: Data<'most'>) => `You have ${most} passkeys. Take one away that you do not use.`),
	'sign-on-none': refusal(
		404,
		() => 'There is no single sign-on here. The server is started with “--sign-on <file>” for it.'
	),
	'sign-on-file': refusal(
		({ file, why }: Data<'file' | 'why'>) =>
			`${file} does not say how to sign on: ${why}. It is JSON with issuer, clientId, name and rules; docs/people.md shows one.`
	),
	'sign-on-failed': refusal(
		502,
		({ issuer, why }: Data<'issuer' | 'why'>) =>
			`Signing on by ${issuer} did not work (${why}). Try again, or sign in otherwise.`
	),
	'sign-on-late': refusal(401, () => 'Signing on took too long, or was begun elsewhere. Try again.'),
	'sign-on-nobody': refusal(
		403,
		() =>
			'You are known there, but nothing here is open to you. Whoever looks after this Kephalon says what you may do.'
	),
	'sign-on-name': refusal(
		409,
		({ name }: Data<'name'>) =>
			`Somebody here is called “${name}” already. If that is you: sign in as before, and bind the account under “Your account”.`
	),
	'sign-on-other': refusal(409, ({ name }: Data<'name'>) => `That account is bound to ${name}.`),
	'recovery-wrong': refusal(401, () => 'The name or the code is not right. Each code works once.'),
	'mail-none': refusal(
		() => 'No mail server is set: hand the link over, or start the server with KEPHALON_SMTP and KEPHALON_MAIL_FROM.'
	),
	'mail-address-broken': refusal(({ address }: Data<'address'>) => `“${address}” is no mail address.`),
	'mail-failed': refusal(
		502,
		({ to, why }: Data<'to' | 'why'>) => `The mail to ${to} did not go out: ${why}. Hand the link over.`
	),
	'invitation-over': refusal(
		404,
		() => 'This invitation was taken or is over. Ask for a new one: “kephalon people reset” makes it.'
	),
	'person-name-broken': refusal(
		() =>
			'A name of a person begins with a letter or digit, and has up to 80 letters, digits, spaces and signs such as . and -.'
	),
	'person-missing': refusal(404, ({ name }: Data<'name'>) => `There is nobody called “${name}”.`),
	'person-there': refusal(409, ({ name }: Data<'name'>) => `Somebody is called “${name}” already.`),
	'owner-last': refusal(
		409,
		({ name }: Data<'name'>) => `${name} is the last who owns every site. Make somebody else an owner first.`
	),
	'role-unknown': refusal(
		({ role, roles }: Data<'role'> & Lists<'roles'>) => `“${role}” is no role. Roles are ${roles.join(', ')}.`
	),
	'area-path-broken': refusal(
		({ path }: Data<'path'>) =>
			`“${path}” is no pattern of paths: it begins with / or *, and * stands for any characters.`
	),
	'area-for-role': refusal(({ role }: Data<'role'>) => `Only editors and builders have areas, not “${role}”.`),
	'key-name-broken': refusal(() => 'A key needs a name of up to 80 characters, by which one knows it again.'),
	'key-scopes': refusal(
		({ scopes }: Lists<'scopes'>) => `A key says what it is for: one or more of ${scopes.join(', ')}.`
	),
	'key-end-broken': refusal(() => 'The end of a key is a date that is yet to come, such as 2027-01-31.'),
	'key-missing': refusal(404, () => 'There is no such key at this site.'),
	'hook-inside': refusal(403, () => 'That an address may lie inside a network is said by an owner of all.'),
	'hook-address': refusal(
		({ address, why }: Data<'address' | 'why'>) =>
			`Nothing is sent to ${address}: it ${why}. An owner of all can say that it may lie inside a network.`
	),
	'hook-events': refusal(
		({ events }: Lists<'events'>) => `An address is told of something: one or more of ${events.join(', ')}.`
	),
	'hook-many': refusal(409, ({ most }: Data<'most'>) => `A site tells ${most} addresses at the most.`),
	'hook-missing': refusal(404, () => 'There is no such address that is told.'),
	'hook-message-missing': refusal(404, () => 'There is no such message: the newest 200 of an address are kept.'),
	'panel-origin-broken': refusal(
		({ origin }: Data<'origin'>) =>
			`“${origin}” is no origin. It has no path, and a port only where it is not the usual one: https://editor.example.`
	),
	'panel-origins-many': refusal(409, ({ most }: Data<'most'>) => `A site names ${most} origins at the most.`),
	'panel-person': refusal(404, ({ name }: Data<'name'>) =>
		name === ''
			? 'Whom the panel is for is said with “person”, by the name that they have here.'
			: `There is nobody called “${name}” at this site who can come in.`
	),
	'panel-page': refusal(() => 'At which page the panel is let in is said with “page”, by its path.'),
	'key-without-panel': refusal(403, () => 'This key lets nobody into the panel: one with the scope “panel” does.'),
	'panel-alone': refusal(409, () => 'Nobody has to be let in here: without people, whoever is at this machine may.'),
	'not-in-panel': refusal(403, () => 'That is not done from a panel. Do it in Kephalon.'),
	'days-broken': refusal(({ days }: Data<'days'>) => `“${days}” is no number of days. Say one from 1 on, or all.`),
	'trail-broken': refusal(
		({ lines, broken }: Data<'lines' | 'broken'>) =>
			`The trail holds for its first ${lines} lines; line ${broken}, or one before it, was changed or taken out.`
	),
	'address-open': refusal(
		({ host }: Data<'host'>) =>
			`On ${host} others could come in. Add a person first (“kephalon people add”), and say with --origin under which address Kephalon is reached.`
	),
	'cert-and-key': refusal(() => 'A certificate goes with its key: say both, --cert and --key.'),
	'origin-broken': refusal(({ origin }: Data<'origin'>) => `“${origin}” is no address such as https://heads.example.`)
};
