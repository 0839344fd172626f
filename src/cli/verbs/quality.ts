import { measureQuality, QUALITY_WORDS, type Quality } from '$server/imports/quality';
import { count, dbOption, listed, print, printJson, say, withReader, type Verb } from '../common';

/** Kinds whose oddest pages people want to see. */
const SHOWN = [
	'descriptionNone',
	'descriptionShort',
	'descriptionCaption',
	'descriptionShared',
	'titleDoubled',
	'languageUnknown',
	'pictureShared'
] as const;

export const addQuality: Verb = (program) => {
	program
		.command('quality')
		.description(
			'Tells how good what came in is: where descriptions come from, which titles stand twice, which languages and pictures are known.'
		)
		.requiredOption('--site <name>', 'the name of the site')
		.option('--json', 'the figures as JSON')
		.addOption(dbOption())
		.action(({ site, json, ...options }: { site: string; json?: boolean; db?: string }) =>
			withReader(options, (store) => {
				const quality = measureQuality(store, site);
				if (json) return printJson(quality);
				print(sharesOf(quality));
				for (const kind of SHOWN) {
					const { oddest, pages } = quality[kind];
					if (pages > 0)
						print(
							`\n${QUALITY_WORDS[kind]}, ${count(pages, 'page')}:\n${listed(
								oddest.map(({ path, text }) => `${path}  ${text.slice(0, 90)}`),
								20
							)}\n`
						);
				}
			})
		);
};

/** The shares, a line each. */
function sharesOf({ pages, found, ...shares }: Quality): string {
	const lines = (Object.keys(QUALITY_WORDS) as (keyof typeof shares)[]).map((kind) => {
		const { pages: some, share } = shares[kind];
		return `${(share * 100).toFixed(1).padStart(6)} %  ${String(some).padStart(7)}  ${QUALITY_WORDS[kind]}\n`;
	});
	return `${count(pages, 'page')}:\n${lines.join('')}${fatesOf(found)}`;
}

/** What becomes of what the pages' own files say, a line for each tag: nothing is dropped unnamed. */
function fatesOf(found: Quality['found']): string {
	const lines = Object.entries(found).map(([tag, { pages, taken, frame, replaced, aside }]) => {
		const parts = [
			taken && `taken on ${count(taken, 'page')}`,
			frame && `passed over as a frame’s on ${frame}`,
			replaced && `a rule says something else on ${replaced}`,
			aside && `set aside or not fit on ${aside}`
		].filter(Boolean);
		return `  ${tag} on ${count(pages, 'page')}: ${parts.join(', ')}\n`;
	});
	return lines.length === 0 ? '' : `What the pages say themselves:\n${lines.join('')}`;
}

/** The same after an import, in short. */
export const sayQuality = (quality: Quality) => say(sharesOf(quality).trimEnd());
