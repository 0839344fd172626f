import { log } from '$server/log';

/**
 * Ends a server in good order on SIGINT and SIGTERM; an error that nothing catches is logged, and a request or a thread
 * that failed does not end the process.
 */
export function endInOrder(close: () => Promise<unknown>) {
	const end = () => void close().then(() => process.exit(0));
	process.once('SIGINT', end);
	process.once('SIGTERM', end);
	process.on('uncaughtException', (error) => log.error(error, 'Nothing caught this error'));
	process.on('unhandledRejection', (error) => log.error(error, 'Nothing caught this rejection'));
}
