import { InvalidArgumentError } from 'commander';
import { resolve } from 'node:path';
import { refuse } from '$server/errors';
import { isSiteFolder } from '$server/siteFile/siteFolder';
import { watchSiteFolder } from '../watchFolder';
import { endInOrder } from '../ending';
import { serve } from '../serve';
import { databaseOf, dbOption, logOption, say, withStore, type Verb } from '../common';

export const addServe: Verb = (program) => {
	program
		.command('serve')
		.description('Starts the web application, on this machine only.')
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
		.addOption(dbOption())
		.addOption(logOption())
		.action(async (options: { db?: string; port: number; content: string[]; readers?: string; watch?: string }) => {
			// Opened once here, so that a bad file is told in words before anything starts.
			await withStore({ ...options, create: true }, () => undefined);
			const { port, content, readers, watch } = options;
			if (watch !== undefined && !isSiteFolder(watch)) throw refuse('site-folder-none', { folder: watch });
			if (readers !== undefined && !/^https?:\/\/\S+$/i.test(readers))
				throw refuse('readers-address-broken', { readers });
			const running = await serve({ db: databaseOf(options), port, content, readers, say });
			say(`Kephalon is at ${running.address}`);
			const watching = watch === undefined ? undefined : watchSiteFolder(databaseOf(options), watch, say);
			endInOrder(async () => {
				await watching?.close();
				await running.close();
			});
		});
};

export function port(text: string): number {
	const number = Number(text);
	if (!Number.isInteger(number) || number < 0 || number > 65_535)
		throw new InvalidArgumentError('A port is a number from 0 to 65535.');
	return number;
}
