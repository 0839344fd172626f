import { InvalidArgumentError } from 'commander';
import { serve } from '../serve';
import { databaseOf, dbOption, say, withStore, type Verb } from '../common';

export const addServe: Verb = (program) => {
	program
		.command('serve')
		.description('Starts the web application, on this machine only.')
		.option('--port <number>', 'the port; the next free one when it is taken', port, 4870)
		.addOption(dbOption())
		.action(async (options: { db?: string; port: number }) => {
			// Opened once here, so that a bad file is told in words before anything starts.
			await withStore(options, () => undefined);
			const running = await serve({ db: databaseOf(options), port: options.port, say });
			say(`Kephalon is at ${running.address}`);
			const end = () => void running.close().then(() => process.exit(0));
			process.once('SIGINT', end);
			process.once('SIGTERM', end);
		});
};

export function port(text: string): number {
	const number = Number(text);
	if (!Number.isInteger(number) || number < 0 || number > 65_535)
		throw new InvalidArgumentError('A port is a number from 0 to 65535.');
	return number;
}
