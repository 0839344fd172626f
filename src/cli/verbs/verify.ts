import { Option } from 'commander';
import { refuse } from '$server/errors';
import { readVia } from '$server/fetching/via';
import { sarifOf } from '$server/findings/sarif';
import { driftInWords, DRIFTS, type Drift } from '$server/probes/drifts';
import { verify } from '$server/probes/verify';
import { collect, count, dbOption, listed, printJson, progressBar, say, type Verb, withStore } from '../common';

interface Options {
	site: string;
	sample?: string;
	rate: string;
	via: string[];
	failOn: string[];
	format: 'text' | 'json' | 'sarif';
	db?: string;
}

const WORDS: Readonly<Record<Drift, string>> = {
	same: 'as released',
	noindex: 'kept out of search',
	'no-page': 'as no page',
	error: 'with an error',
	missing: 'without their tags',
	picture: 'without a picture of their card',
	old: 'as in an earlier release',
	other: 'otherwise',
	doubled: 'with tags twice',
	unreachable: 'not to be reached',
	'shut-out': 'shut out by robots.txt'
};
const WEIGHTS: Readonly<Record<Drift, number>> = {
	same: 0,
	missing: 8,
	picture: 7,
	old: 4,
	other: 5,
	doubled: 4,
	noindex: 8,
	'no-page': 8,
	error: 9,
	unreachable: 9,
	'shut-out': 6
};

/** Ways in which a page can be served otherwise than it was released. */
const DRIFTED: readonly Drift[] = DRIFTS.filter((is) => is !== 'same');

export const addVerify: Verb = (program) => {
	program
		.command('verify')
		.description(
			'Fetches the released pages of a site and compares what is served with what was released. Ctrl+C stops it; the next time goes on from there.'
		)
		.requiredOption('--site <name>', 'the name of the site')
		.option('--sample <pages>', 'only so many pages, chosen evenly')
		.option('--rate <requests>', 'requests a second', '5')
		.option(
			'--via <address>',
			'a machine at hand that stands in for the public site; may be repeated, with HOST=ADDRESS for others',
			collect,
			[]
		)
		.option(
			'--fail-on <kinds>',
			`exit code 1 for these alone, of ${DRIFTED.join(', ')}; else for each of them`,
			(text: string, before: string[]) => [...before, ...text.split(',')],
			[]
		)
		.addOption(new Option('--format <format>', 'how it is told').choices(['text', 'json', 'sarif']).default('text'))
		.addOption(dbOption())
		.action(({ site, sample, rate, via, failOn, format, ...options }: Options) =>
			withStore(options, async (store) => {
				const [pages, speed] = [sample === undefined ? undefined : Number(sample), Number(rate)];
				if (!(speed > 0) || (pages !== undefined && !(Number.isInteger(pages) && pages > 0)))
					throw refuse('rate-broken');
				const unknown = failOn.find((kind) => !DRIFTED.includes(kind as Drift));
				if (unknown !== undefined) throw refuse('fail-on-unknown', { kind: unknown, known: DRIFTED });
				const stop = new AbortController();
				const onStop = () => stop.abort();
				process.once('SIGINT', onStop);
				const bar = progressBar('Looking');
				const done = await verify(store, {
					...{ site, sample: pages, rate: speed, signal: stop.signal, progress: bar.update },
					via: readVia(via, store.working.sites.named(site).site.base)
				}).finally(() => {
					bar.stop();
					process.off('SIGINT', onStop);
				});
				if (DRIFTED.some((kind) => (failOn.length === 0 || failOn.includes(kind)) && done.counts[kind] > 0))
					process.exitCode = 1;
				if (format === 'json') printJson({ ...done, drifted: done.drifted.map(driftInWords) });
				else if (format === 'sarif') printJson(asSarif(done));
				else describe(done, pages !== undefined);
			})
		);
};

type Verified = Awaited<ReturnType<typeof verify>>;

const asSarif = ({ drifted }: Verified) =>
	sarifOf(
		drifted.map(driftInWords).map(({ path, is, more }) => ({
			code: `served-${is}`,
			says: `Served ${WORDS[is]}: ${more}`,
			mend: '',
			weight: WEIGHTS[is],
			place: path.slice(1) || 'index'
		})),
		__KEPHALON_VERSION__
	);

function describe({ pages, released, counts, drifted, waiting }: Verified, isSample: boolean) {
	const seen = Object.entries(counts).filter(([, number]) => number > 0);
	const told = listed(seen.map(([is, number]) => `${number} ${WORDS[is as Drift]}`));
	say(`${count(pages, 'page')} of ${released} released looked at:\n${told}`);
	const lines = drifted.map(driftInWords).map(({ path, is, more }) => `${path}: ${WORDS[is]}${more && ` (${more})`}`);
	if (lines.length > 0) say(listed(lines, 40));
	if (waiting > 0)
		say(`${count(waiting, 'page')} not looked at: ${isSample ? 'a sample begins anew' : 'say it again to go on'}.`);
}
