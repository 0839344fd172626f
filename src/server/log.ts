import pino from 'pino';

export const LOG_LEVELS = ['silent', 'error', 'warn', 'info', 'debug'] as const;

/** One line of JSON for each event, on stderr; what is said to people at the terminal is not part of it. */
export const log = pino(
	{ level: process.env.KEPHALON_LOG_LEVEL ?? 'warn', base: { pid: process.pid } },
	pino.destination({ dest: 2, sync: true })
);
