import cluster from 'node:cluster';
import { InvalidArgumentError } from 'commander';
import { refuse } from '$server/errors';
import { Store } from '$server/store/store';
import { endInOrder } from '../ending';
import { deliver, LOCAL_HOST, refuseTaken, USUAL_PER_SECOND } from '../serve';
import { allowSources, databaseOf, dbOption, logOption, say, sourceOption, type Verb } from '../common';
import { more, port } from './serve';

/** A process that ends sooner than this (milliseconds) after its start is not started again. */
const TOO_SOON = 2000;

interface Options {
	readonly db?: string;
	readonly port: number;
	readonly host: string;
	readonly workers: number;
	readonly trustProxy: string[];
	readonly perSecond: number;
	readonly source: readonly string[];
}

export const addDeliver: Verb = (program) => {
	program
		.command('deliver')
		.description(
			'Serves released heads, heads of live data, pictures and web manifests, and nothing else; reads the database only.'
		)
		.option('--port <number>', 'the port', port, 4880)
		.option('--host <address>', 'the address to listen at, such as 0.0.0.0', LOCAL_HOST)
		.option(
			'--trust-proxy <address>',
			'the address of a proxy that says truly whom it speaks for; may be repeated',
			more,
			[]
		)
		.option(
			'--per-second <number>',
			'how many requests a second one address may send; 0 for any',
			perSecond,
			USUAL_PER_SECOND
		)
		.option('--workers <number>', 'how many processes serve', workers, 1)
		.addOption(sourceOption())
		.addOption(dbOption())
		.addOption(logOption())
		.action(async (options: Options) => {
			const db = databaseOf(options);
			allowSources(options.source);
			if (cluster.isPrimary) new Store(db, { readonly: true }).close();
			if (cluster.isPrimary && options.workers > 1) {
				await refuseTaken(options.port, options.host);
				return supervise(options);
			}
			const { port, host, trustProxy: proxies, perSecond } = options;
			const running = await deliver({ db, port, host, proxies, perSecond, say });
			if (cluster.isPrimary) say(`Delivery is at ${running.address}`);
			endInOrder(running.close);
		});
};

/** Starts the processes that serve, and another for each that ends by itself. */
function supervise({ workers: count, host, port: wanted }: Options): Promise<void> {
	return new Promise((_, reject) => {
		let isEnding = false;
		const start = () => {
			const began = Date.now();
			const worker = cluster.fork();
			worker.once('exit', (code) => {
				if (isEnding) return Object.keys(cluster.workers ?? {}).length === 0 && process.exit(0);
				if (Date.now() - began < TOO_SOON) return reject(refuse('delivery-ended', { exit: code }));
				say('A process of the delivery ended; another takes its place.');
				start();
			});
		};
		for (let at = 0; at < count; at++) start();
		cluster.once('listening', () => say(`Delivery is at http://${host}:${wanted}, in ${count} processes`));
		const end = () => {
			isEnding = true;
			for (const worker of Object.values(cluster.workers ?? {})) worker?.kill('SIGTERM');
		};
		process.once('SIGINT', end);
		process.once('SIGTERM', end);
	});
}

function perSecond(text: string): number {
	const number = Number(text);
	if (!Number.isInteger(number) || number < 0)
		throw new InvalidArgumentError('Requests a second are a number from 0 on.');
	return number;
}

function workers(text: string): number {
	const number = Number(text);
	if (!Number.isInteger(number) || number < 1 || number > 64)
		throw new InvalidArgumentError('The number of processes is from 1 to 64.');
	return number;
}
