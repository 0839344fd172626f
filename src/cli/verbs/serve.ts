import { InvalidArgumentError } from 'commander';
import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { parseUrl } from '$core';
import { refuse } from '$server/errors';
import { readSignOn } from '$server/people/signOnSettings';
import { isSiteFolder } from '$server/files/folder';
import { watchSiteFolder } from '../watchFolder';
import { endInOrder } from '../ending';
import { LOCAL_HOST, serve, type Together } from '../serve';
import { allowSources, databaseOf, dbOption, logOption, say, sourceOption, withStore, type Verb } from '../common';

export const addServe: Verb = (program) => {
	program
		.command('serve')
		.description('Starts the web application: on this machine only, or where --host says, once there are people.')
		.option('--port <number>', 'the port; the next free one when it is taken', port, 4870)
		.option(
			'--content <folder>',
			'a folder that content may be read from in the set-up; may be repeated',
			(folder: string, before: string[]) => [...before, resolve(folder)],
			[]
		)
		.option(
			'--watch <folder>',
			'a site file as a folder of small files, read now and whenever something in it changes',
			(folder: string) => resolve(folder)
		)
		.option('--readers <address>', 'where readers that keep cards can be spoken to')
		.option('--host <address>', 'the address it listens on; on another than this machine’s own there must be people')
		.option(
			'--origin <address>',
			'under which address it is reached, such as https://heads.example; may be repeated',
			more,
			[]
		)
		.option(
			'--trust-proxy <address>',
			'the address of a proxy that says truly whom it speaks for; may be repeated',
			more,
			[]
		)
		.option('--sign-on <file>', 'how people sign on by an issuer of OpenID Connect (JSON; see docs/people.md)')
		.option('--cert <file>', 'a certificate (PEM), to encrypt by itself')
		.option('--key <file>', 'its key (PEM)')
		.addOption(sourceOption())
		.addOption(dbOption())
		.addOption(logOption())
		.action(async (options: Options) => {
			// Opened once here, so that a bad file is told in words before anything starts.
			await withStore({ ...options, create: true }, () => undefined);
			const { port, content, readers, watch } = options;
			allowSources(options.source);
			if (watch !== undefined && !isSiteFolder(watch)) throw refuse('site-folder-none', { folder: watch });
			if (readers !== undefined && !/^https?:\/\/\S+$/i.test(readers))
				throw refuse('readers-address-broken', { readers });
			if (options.signOn !== undefined) readSignOn(options.signOn);
			const together = await togetherOf(options);
			const signOn = options.signOn && resolve(options.signOn);
			const running = await serve({ db: databaseOf(options), port, content, readers, signOn, say, together });
			say(`Kephalon is at ${running.address}`);
			const watching = watch === undefined ? undefined : watchSiteFolder(databaseOf(options), watch, say);
			endInOrder(async () => {
				await watching?.close();
				await running.close();
			});
		});
};

interface Options {
	readonly db?: string;
	readonly port: number;
	readonly content: string[];
	readonly source: readonly string[];
	readonly readers?: string;
	readonly watch?: string;
	readonly host?: string;
	readonly origin: string[];
	readonly trustProxy: string[];
	readonly signOn?: string;
	readonly cert?: string;
	readonly key?: string;
}

/** Of an option that may be repeated. */
export const more = (one: string, before: string[]) => [...before, one];
const LOOPBACK = /^(127\.\d+\.\d+\.\d+|localhost|::1)$/;

/** Where it listens for others; undefined for this machine alone. Refuses to be open without people and names. */
async function togetherOf(options: Options): Promise<Together | undefined> {
	const { host = LOCAL_HOST, origin, trustProxy, cert, key } = options;
	const origins = origin.map((one) => {
		const url = parseUrl(one);
		if (!url || !/^https?:$/.test(url.protocol) || url.pathname !== '/') throw refuse('origin-broken', { origin: one });
		return url.origin;
	});
	const hasPeople = await withStore(options, (store) => store.people.exist());
	if (!LOOPBACK.test(host) && (!hasPeople || origins.length === 0)) throw refuse('address-open', { host });
	if ((cert === undefined) !== (key === undefined)) throw refuse('cert-and-key');
	if (LOOPBACK.test(host) && origins.length === 0) return undefined;
	const tls =
		cert === undefined || key === undefined ? undefined : { cert: readFileSync(cert), key: readFileSync(key) };
	return { host, origins, proxies: trustProxy, tls };
}

export function port(text: string): number {
	const number = Number(text);
	if (!Number.isInteger(number) || number < 0 || number > 65_535)
		throw new InvalidArgumentError('A port is a number from 0 to 65535.');
	return number;
}
