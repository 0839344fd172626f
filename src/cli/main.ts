import { Command, CommanderError } from 'commander';
import { UserError } from '$server/errors';
import { explain } from '$server/store/opening/database';
import { addBackup } from './verbs/backup';
import { addCheck } from './verbs/check';
import { addCompose } from './verbs/compose';
import { addDeliver } from './verbs/deliver';
import { addDiff, addRollback } from './verbs/diff';
import { addExport } from './verbs/export';
import { addImport } from './verbs/import';
import { addFragments } from './verbs/fragments';
import { addInject } from './verbs/inject';
import { addPages } from './verbs/pages';
import { addAudit, addPeople } from './verbs/people';
import { addProbe } from './verbs/probe';
import { addQuality } from './verbs/quality';
import { addRelease } from './verbs/release';
import { addReleases } from './verbs/releases';
import { addRender } from './verbs/render';
import { addRestore } from './verbs/restore';
import { addVerify } from './verbs/verify';
import { addServe } from './verbs/serve';

const program = new Command('kephalon')
	.description('Decides what every address of a website says in its head.')
	.version(__KEPHALON_VERSION__)
	.showHelpAfterError('(kephalon --help lists what there is)')
	.addHelpText(
		'after',
		'\nThe database is --db FILE, else KEPHALON_DB, else ./data/kephalon.db.\nExit codes: 0 done, 1 findings or refused, 2 wrong use.'
	);

for (const add of [
	addImport,
	addExport,
	addRender,
	addFragments,
	addInject,
	addCheck,
	addPages,
	addQuality,
	addProbe,
	addVerify,
	addCompose,
	addRelease,
	addReleases,
	addDiff,
	addRollback,
	addBackup,
	addRestore,
	addPeople,
	addAudit,
	addServe,
	addDeliver
])
	add(program);
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
