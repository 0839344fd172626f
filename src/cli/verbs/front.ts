import { InvalidArgumentError } from 'commander';
import { parseUrl } from '$core';
import { ReleasedHeads } from '$server/rewriting/releasedHeads';
import { runJob, stopJobs } from '$server/jobs/run';
import { Proxy } from '$server/rewriting/proxy';
import { SourceHeads } from '$server/rewriting/sourceHeads';
import { liveRecords } from '$server/sources/sources';
import { Store } from '$server/store/store';
import { endInOrder } from '../ending';
import { listen, LOCAL_HOST, threadFile } from '../serve';
import { allowSources, databaseOf, dbOption, logOption, say, sourceOption, type Verb } from '../common';
import { port } from './serve';

interface Options {
	readonly db?: string;
	readonly site: string;
	readonly upstream: URL;
	readonly port: number;
	readonly host: string;
	readonly source: readonly string[];
}

export const addFront: Verb = (program) => {
	program
		.command('front')
		.description('Stands in front of a web server and writes released heads into the pages that go past.')
		.requiredOption('--site <name>', 'the name of the site')
		.requiredOption('--upstream <address>', 'the server behind, such as http://127.0.0.1:8080', upstream)
		.option('--port <number>', 'the port', port, 4890)
		.option('--host <address>', 'the address to listen at, such as 0.0.0.0', LOCAL_HOST)
		.addOption(sourceOption())
		.addOption(dbOption())
		.addOption(logOption())
		.action(async ({ site, upstream, port: wanted, host, ...options }: Options) => {
			const store = new Store(databaseOf(options), { readonly: true });
			store.working.sites.named(site);
			const heads = new ReleasedHeads(store, site);
			allowSources(options.source);
			process.env.KEPHALON_THREAD ??= threadFile();
			const live = new SourceHeads(
				store,
				site,
				liveRecords(
					(task) => runJob('record', task),
					() => undefined
				)
			);
			const proxy = new Proxy({ upstream, headOf: (path) => heads.of(path) ?? live.of(path) });
			const running = await listen(proxy.listener, {
				...{ port: wanted, host, what: 'the front', say },
				with: (server) => proxy.serve(server)
			});
			say(`The front of ${upstream.host} is at ${running.address}`);
			endInOrder(async () => {
				await running.close();
				await stopJobs();
				store.close();
			});
		});
};

function upstream(text: string): URL {
	const url = parseUrl(text);
	if (!url || !/^https?:$/.test(url.protocol) || url.pathname !== '/' || url.search !== '' || url.hash !== '')
		throw new InvalidArgumentError('The server behind is an address without a path, such as http://127.0.0.1:8080.');
	return url;
}
