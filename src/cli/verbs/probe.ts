import { Option } from 'commander';
import { ALL_READERS, nothingFound, parseUrl, reportOf } from '$core';
import { refuse } from '$server/errors';
import { TracingFetcher } from '$server/fetching/trace';
import { readVia } from '$server/fetching/via';
import { sarifOf } from '$server/findings/sarif';
import { probe } from '$server/probes/probe';
import { probeInWords, type ToldProbe } from '$server/probes/told';
import { collect, print, printJson, type Verb } from '../common';

interface Options {
	reader: string[];
	via: string[];
	format: 'text' | 'json' | 'sarif' | 'html';
}

export const addProbe: Verb = (program) => {
	program
		.command('probe')
		.description(
			'Fetches addresses as readers of links would, and tells what each sees, and why. Exit code 1 when something grave is found.'
		)
		.argument('<address...>', 'whole addresses of pages')
		.option(
			'--reader <id>',
			`only this reader: ${ALL_READERS.map(({ id }) => id).join(', ')}; may be repeated`,
			collect,
			[]
		)
		.option(
			'--via <address>',
			'a machine at hand that stands in for the public site, such as http://127.0.0.1:5173, or for another host, such as https://media.site.example=http://127.0.0.1:5174; may be repeated',
			collect,
			[]
		)
		.addOption(
			new Option('--format <format>', 'how it is told').choices(['text', 'json', 'sarif', 'html']).default('text')
		)
		.action(async (addresses: string[], { reader, via, format }: Options) => {
			const unknown = reader.find((id) => !ALL_READERS.some((one) => one.id === id));
			if (unknown) throw refuse('reader-missing', { reader: unknown, readers: ALL_READERS.map(({ id }) => id) });
			for (const address of addresses)
				if (!/^https?:\/\//i.test(address) || !parseUrl(address)) throw refuse('address-not-whole', { address });
			const fetcher = new TracingFetcher(new Set(), readVia(via, addresses[0] as string));
			try {
				const which = reader.length > 0 ? ALL_READERS.filter(({ id }) => reader.includes(id)) : ALL_READERS;
				const probes = [];
				for (const address of addresses) {
					const one = probeInWords(await probe(fetcher, address, which));
					probes.push(one);
					if (format === 'text') print(asText(one));
					if (format === 'html') print(reportOf(one));
				}
				if (format === 'json') printJson(probes);
				if (format === 'sarif')
					printJson(
						sarifOf(
							probes.flatMap(({ address, findings }) => findings.map((one) => ({ ...one, place: address }))),
							__KEPHALON_VERSION__
						)
					);
				if (probes.some(({ findings }) => findings.some(({ weight }) => weight >= 6))) process.exitCode = 1;
			} finally {
				await fetcher.close();
			}
		});
};

function asText({ address, readers, findings, picture, unseen, tags }: ToldProbe): string {
	const hops = readers.find((one) => one.hops.length > 0)?.hops ?? [];
	const way = hops.map(({ address: at, status, took }) => `  ${status || '—'}  ${at}  ${took.toFixed(0)} ms\n`);
	const cards = readers.map(({ reader, isShutOut, robotsFail, card, end, bytes, key }) => {
		const { name } = ALL_READERS.find(({ id }) => id === reader) as (typeof ALL_READERS)[number];
		if (isShutOut)
			return `  ${name}: ${robotsFail === undefined ? 'shut out by robots.txt' : `reads nothing while robots.txt ${robotsFail}`}\n`;
		if (!card) return `  ${name}: no card (${end})\n`;
		const shows = card.picture ? card.picture.address : 'no picture';
		return `  ${name}: ${card.title.shown || 'no title'}${card.title.cut ? '…' : ''} · ${shows} · ${(bytes / 1000).toFixed(0)} kB read, kept under ${key}\n`;
	});
	const found = findings.map(({ says, mend, line }) => `  ${line ? `line ${line}: ` : ''}${says}. ${mend}\n`);
	return [
		`${address}\n`,
		...way,
		`  ${tags.length} tags${picture ? `; picture ${picture.facts ? `${picture.facts.width} × ${picture.facts.height}, ${Math.round((picture.facts.bytes ?? 0) / 1000)} kB` : picture.why}` : ''}\n`,
		...cards,
		found.length > 0 ? `Found:\n${found.join('')}` : `${nothingFound({ readers, picture, unseen })}\n`,
		'\n'
	].join('');
}
