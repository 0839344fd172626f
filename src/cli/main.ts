import { Command, CommanderError } from 'commander';
import { UserError } from '$server/errors';
import { explain } from '$server/store/opening/database';
import type { Verb } from './common';

const program = new Command('kephalon')
	.description('Decides what every address of a website says in its head.')
	.version(__KEPHALON_VERSION__)
	.showHelpAfterError('(kephalon --help lists what there is)')
	.addHelpText(
		'after',
		'\nThe database is --db FILE, else KEPHALON_DB, else ./data/kephalon.db.\nExit codes: 0 done, 1 findings or refused, 2 wrong use.'
	);

/** A verb brings its own code along, and only the one that is wanted is loaded. */
const VERBS = new Map<string, () => Promise<Verb>>(
	Object.entries({
		import: async () => (await import('./verbs/import')).addImport,
		export: async () => (await import('./verbs/export')).addExport,
		render: async () => (await import('./verbs/render')).addRender,
		fragments: async () => (await import('./verbs/fragments')).addFragments,
		inject: async () => (await import('./verbs/inject')).addInject,
		check: async () => (await import('./verbs/check')).addCheck,
		pages: async () => (await import('./verbs/pages')).addPages,
		quality: async () => (await import('./verbs/quality')).addQuality,
		probe: async () => (await import('./verbs/probe')).addProbe,
		verify: async () => (await import('./verbs/verify')).addVerify,
		compose: async () => (await import('./verbs/compose')).addCompose,
		release: async () => (await import('./verbs/release')).addRelease,
		releases: async () => (await import('./verbs/releases')).addReleases,
		diff: async () => (await import('./verbs/diff')).addDiff,
		rollback: async () => (await import('./verbs/diff')).addRollback,
		backup: async () => (await import('./verbs/backup')).addBackup,
		restore: async () => (await import('./verbs/restore')).addRestore,
		people: async () => (await import('./verbs/people')).addPeople,
		audit: async () => (await import('./verbs/people')).addAudit,
		serve: async () => (await import('./verbs/serve')).addServe,
		api: async () => (await import('./verbs/api')).addApi,
		front: async () => (await import('./verbs/front')).addFront,
		deliver: async () => (await import('./verbs/deliver')).addDeliver
	})
);
const wanted = VERBS.get(process.argv[2] ?? '');
for (const load of wanted ? [wanted] : VERBS.values()) (await load())(program);
for (const verb of [program, ...program.commands, ...program.commands.flatMap(({ commands }) => commands)])
	verb.exitOverride();

/** Who reads the output may have seen enough, as `head` does: then the work is done. */
process.stdout.on('error', (error: NodeJS.ErrnoException) => process.exit(error.code === 'EPIPE' ? 0 : tell(error)));

try {
	await program.parseAsync();
} catch (error) {
	process.exitCode = tell(explain(error, 'in use'));
}

/** Says what went wrong on stderr, and which exit code it stands for. */
function tell(error: unknown): number {
	if (error instanceof CommanderError) return error.exitCode === 0 ? 0 : 2;
	if (error instanceof UserError) {
		const { removes } = error.data;
		process.stderr.write(
			`${error.message}${removes === undefined ? '' : ` Say it with --removes ${JSON.stringify(removes)}.`}\n`
		);
		return error.exitCode;
	}
	if (error instanceof Error && 'code' in error && error.code === 'EPIPE') return 0;
	if (error instanceof Error && 'code' in error && error.code === 'ENOSPC') {
		process.stderr.write('The disk is full. Free some space and try again.\n');
		return 1;
	}
	process.stderr.write(`Kephalon itself failed: ${error instanceof Error ? error.stack : String(error)}\n`);
	return 1;
}
