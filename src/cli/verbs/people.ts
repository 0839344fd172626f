import { InvalidArgumentError, Option, type Command } from 'commander';
import { ROLES, type PageArea, type Role } from '$core';
import { addPerson, dropPerson, linkOf, lockPerson, resetPerson, setOwner, setRole } from '$server/people/accounts';
import { refuse } from '$server/errors';
import { note } from '$server/people/note';
import { count, dbOption, print, printJson, say, withReader, withStore, type Verb } from '../common';

interface Options {
	readonly db?: string;
	readonly origin?: string;
	readonly json?: boolean;
	readonly owner?: boolean;
	readonly site?: string;
	readonly as?: Role | 'none';
	readonly path?: string[];
	readonly type?: string[];
	readonly language?: string[];
}

/** Where Kephalon is reached, where nobody says otherwise. */
const USUAL = 'http://127.0.0.1:4870';

const originOption = () =>
	new Option('--origin <address>', 'the address under which Kephalon is reached, for the link');

export const addPeople: Verb = (program) => {
	const people = program
		.command('people')
		.description('Lists who may come in; without anyone, whoever is at this machine is alone and may do all.')
		.option('--json', 'the list as JSON')
		.addOption(dbOption())
		.action((options: Options) =>
			withReader(options, (store) => {
				const all = store.people.listed();
				if (options.json) return printJson(all);
				if (all.length === 0) return say('There is nobody: whoever is at this machine may do all.');
				for (const { name, isOwner, isLocked, isInvited, roles } of all) {
					const at = Object.entries(roles).map(([site, { role, area }]) => `${role} of ${site}${inWords(area)}`);
					const all = [...(isOwner ? ['owner of every site'] : []), ...at];
					const state = isLocked ? ', locked out' : isInvited ? ', invited' : '';
					print(`${name}${state}: ${all.join('; ') || 'nothing yet'}\n`);
				}
			})
		);

	const named = (verb: string, what: string, work: (name: string, options: Options) => Promise<void>) =>
		people
			.command(`${verb} <name>`)
			.description(what)
			.action((name: string, _: unknown, command: Command) => work(name, command.optsWithGlobals<Options>()));

	named(
		'add',
		'Adds a person, and prints the link of the invitation; the first one owns every site.',
		(name, options) =>
			withStore({ ...options, create: true }, (store) => {
				const { secret, isOwner } = addPerson(store, name, options.owner);
				say(
					`${name} is invited${isOwner ? ', as an owner of every site' : ''}. The link can be used once, within a week:`
				);
				print(`${linkOf(secret, options.origin ?? USUAL)}\n`);
			})
	)
		.option('--owner', 'an owner of every site')
		.addOption(originOption());

	named('reset', 'Ends what lets a person in, and prints the link of a new invitation.', (name, options) =>
		withStore(options, (store) => {
			const secret = resetPerson(store, name);
			say(`${name} is invited anew. The link can be used once, within a week:`);
			print(`${linkOf(secret, options.origin ?? USUAL)}\n`);
		})
	).addOption(originOption());

	named('lock', 'Locks a person out, at once.', (name, options) =>
		withStore(options, (store) => {
			lockPerson(store, name, true);
			say(`${name} is locked out.`);
		})
	);
	named('unlock', 'Lets a person in again that was locked out.', (name, options) =>
		withStore(options, (store) => {
			lockPerson(store, name, false);
			say(`${name} may come in again.`);
		})
	);
	named('remove', 'Takes a person away.', (name, options) =>
		withStore(options, (store) => {
			dropPerson(store, name);
			say(`${name} is taken away.`);
		})
	);

	named('role', 'Says what a person is at a site, or that they own every site.', (name, options) =>
		withStore(options, (store) => {
			const { site, as, path, type, language } = options;
			if (site === undefined) {
				if (as !== 'owner' && as !== 'none') throw refuse('name-the-site');
				setOwner(store, name, as === 'owner');
				return say(as === 'owner' ? `${name} owns every site.` : `${name} does not own every site any more.`);
			}
			const area: PageArea = {
				...(path && { paths: path }),
				...(type && { types: type }),
				...(language && { languages: language })
			};
			setRole(store, site, name, as === 'none' ? undefined : as, area);
			say(as === 'none' ? `${name} is nothing at ${site} any more.` : `${name} is ${as} of ${site}${inWords(area)}.`);
		})
	)
		.requiredOption('--as <role>', `one of ${ROLES.join(', ')}, none`, role)
		.option('--site <name>', 'the site; without it, owner of every site, or none')
		.option(
			'--path <pattern>',
			'only pages whose path fits, in which * stands for any characters; may be repeated',
			more
		)
		.option('--type <name>', 'only pages of a type; may be repeated', more)
		.option('--language <tag>', 'only pages in a language; may be repeated', more);
};

const more = (one: string, before: string[] = []) => [...before, one];

function role(text: string): Role | 'none' {
	const found = [...ROLES, 'none' as const].find((one) => one === text);
	if (!found) throw new InvalidArgumentError(`A role is one of ${ROLES.join(', ')}, none.`);
	return found;
}

function inWords({ paths, types, languages }: PageArea): string {
	const parts = [
		...(paths ? [`paths ${paths.join(' ')}`] : []),
		...(types ? [`types ${types.join(' ')}`] : []),
		...(languages ? [`languages ${languages.join(' ')}`] : [])
	];
	return parts.length > 0 ? ` (only ${parts.join(', ')})` : '';
}

export const addAudit: Verb = (program) => {
	const audit = program
		.command('audit')
		.description('Prints the trail of what was done beside edits, the oldest first.')
		.addOption(new Option('--format <format>', 'how it is printed').choices(['text', 'ndjson']).default('text'))
		.addOption(dbOption())
		.action((options: { db?: string; format: 'text' | 'ndjson' }) =>
			withReader(options, (store) => {
				for (const line of store.trail.all()) {
					if (options.format === 'ndjson') print(`${JSON.stringify(line)}\n`);
					else
						print(
							`${line.at}  ${line.who}: ${line.what}${line.site === undefined ? '' : ` at ${line.site}`} ${JSON.stringify(line.data)}\n`
						);
				}
			})
		);
	audit
		.command('keep <days>')
		.description('Keeps the lines of the trail so many days; older ones go as others come. “all” keeps them for ever.')
		.action((days: string, _: unknown, command: Command) => {
			const many = days === 'all' ? undefined : Number(days);
			if (many !== undefined && !(Number.isInteger(many) && many > 0 && many < 100_000))
				throw refuse('days-broken', { days });
			return withStore(command.optsWithGlobals<{ db?: string }>(), (store) => {
				store.transaction(() => {
					store.trail.keepFor(many);
					note(store, 'trail-kept', { days: many ?? 'all' });
				});
				say(many === undefined ? 'The trail is kept for ever.' : `The trail is kept for ${count(many, 'day')}.`);
			});
		});
	audit
		.command('verify')
		.description('Checks that no line of the trail was changed or taken out. Exit code 1 where one was.')
		.action((_: unknown, command: Command) =>
			withReader(command.optsWithGlobals<{ db?: string }>(), (store) => {
				const { lines, broken } = store.trail.verify();
				if (broken !== undefined) throw refuse('trail-broken', { lines, broken });
				say(lines === 0 ? 'The trail has no lines yet.' : `${count(lines, 'line')}, each bound to the one before.`);
			})
		);
};
