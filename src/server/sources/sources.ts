import { recordAddress, whyNoSource, type ContentType, type DataSource } from '$core';
import { refuse } from '../errors';
import { encodedPath } from '../files/folder';
import { readerOf } from '../heads/records';
import { log } from '../log';
import type { Store } from '../store/store';
import { LiveRecords } from './liveRecords';
import type { RecordAnswer, RecordTask } from './readRecord';

/** Origins of sources that may lie inside a network: whoever started the server named them. */
export const insideOrigins = (): readonly string[] => JSON.parse(process.env.KEPHALON_SOURCES ?? '[]') as string[];

/** Throws a `UserError` for a source that gives nothing, and for a mapping that cannot be read. */
export function refuseSource({ name, source, mapping }: Pick<ContentType, 'name' | 'source' | 'mapping'>) {
	const why = source && whyNoSource(source);
	if (why !== undefined) throw refuse('source-broken', { contentType: name, why });
	for (const where of Object.values(mapping ?? {})) readerOf(where);
}

/** A path as it stands in an address: what cannot stand there is encoded. */
const asInAddress = (path: string): string => (/^[\x21-\x7e]+$/.test(path) ? path : encodedPath(path));

/** The type whose source has a page, with its path and where its record is; the first one in their order. */
export function sourceOf(
	types: Iterable<ContentType>,
	said: string
):
	| { readonly type: ContentType; readonly source: DataSource; readonly path: string; readonly address: string }
	| undefined {
	const path = asInAddress(said);
	for (const type of types) {
		const { source } = type;
		const address = source && recordAddress(source, path);
		if (address !== undefined && !type.off) return { type, source: source!, path, address };
	}
	return undefined;
}

/** What a source is called where many sites are served. */
export const nameOfSource = (site: number, type: string) => JSON.stringify([site, type]);

/**
 * Records of the sources of all sites.
 * @param read asks for one, in a thread: what it answers is foreign
 * @param store where it is noted that one is away; undefined where nothing is written
 */
export const liveRecords = (read: (task: RecordTask) => Promise<RecordAnswer>, store: () => Store | undefined) =>
	new LiveRecords(
		(task) => read({ ...task, inside: insideOrigins() }),
		(source, why) => {
			const [site, type] = JSON.parse(source) as [number, string];
			if (why !== undefined) log.warn({ site, type, why }, 'A source of live data is away: what was known goes out');
			try {
				const into = store();
				into?.transaction(() => into.state.sources.note(site, type, why, Date.now()));
				return true;
			} catch {
				// Another is writing: it is told with the next answer.
				return false;
			}
		}
	);
