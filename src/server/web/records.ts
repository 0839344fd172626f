import { recordAddress, type DataSource, type Fields, type Page, type TriedPage } from '$core';
import { refuse } from '../errors';
import { runJob } from '../jobs/run';
import type { StoredSite } from '../store/store';
import { insideOrigins, refuseSource } from '../sources/sources';

/** A record of live data as it is at this moment, and what a type reads in it. */
export interface TriedRecord {
	readonly address: string;
	readonly status?: number;
	/** Why it could not be had, in a sentence. */
	readonly why?: string;
	/** As text, its beginning where it is long. */
	readonly record?: string;
	readonly fields?: Fields;
	/** Fields that could not be read where the mapping says, with why. */
	readonly problems?: Readonly<Record<string, string>>;
}

interface Wanted {
	readonly type: string;
	readonly path: string;
	/** Instead of the type's own. */
	readonly source?: DataSource;
	readonly mapping?: Readonly<Record<string, string>>;
}

/** Asks for the record of one page. Throws a `UserError` where no source has it. */
export async function tryRecord(
	{ types }: StoredSite,
	{ type: name, path, source, mapping }: Wanted
): Promise<TriedRecord> {
	const type = types.find((one) => one.name === name);
	if (!type) throw refuse('type-missing', { contentType: name });
	const by = { name, ...optional(source ?? type.source, mapping ?? type.mapping) };
	refuseSource(by);
	const address = by.source && recordAddress(by.source, path);
	if (address === undefined) throw refuse('record-of-none', { page: path });
	const answer = await runJob('record', { address, inside: insideOrigins(), mapping: by.mapping, whole: true });
	const { status, why = status === 200 ? undefined : `It answered ${status}.`, record, fields, problems } = answer;
	return {
		address,
		...(status !== undefined && { status }),
		...(why !== undefined && { why }),
		...(record !== undefined && { record }),
		...(fields !== undefined && { fields }),
		...(problems !== undefined && { problems })
	};
}

const optional = (source: DataSource | undefined, mapping: Readonly<Record<string, string>> | undefined) => ({
	...(source && { source }),
	...(mapping && { mapping })
});

/** So many pages of live data are tried at once. */
const MOST_TRIED = 12;

/** Pages of live data that templates of a type are tried on: its samples, and those at some paths; and those that are away, told as that. */
export async function livePages(
	stored: StoredSite,
	name: string | undefined,
	paths: readonly string[]
): Promise<{ readonly live: Page[]; readonly away: TriedPage[] }> {
	const type = stored.types.find((one) => one.name === name);
	if (!type?.source) return { live: [], away: [] };
	const wanted = [...new Set([...paths, ...(type.source.samples ?? [])])].slice(0, MOST_TRIED);
	const tried = await Promise.all(
		wanted.map(async (path) => {
			try {
				return { path, ...(await tryRecord(stored, { type: type.name, path })) };
			} catch (error) {
				return { path, why: (error as Error).message };
			}
		})
	);
	return {
		live: tried.flatMap((one) =>
			'fields' in one && one.fields
				? [{ path: one.path, type: type.name, state: 'live' as const, rules: [], fields: one.fields }]
				: []
		),
		away: tried.flatMap((one) =>
			one.why === undefined ? [] : [{ path: one.path, kinds: [], values: [], away: one.why }]
		)
	};
}
