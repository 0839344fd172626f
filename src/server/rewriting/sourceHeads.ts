import { hash as digest } from 'node:crypto';
import type { Fields } from '$core';
import { UserError } from '../errors';
import { LiveHeadMaker } from '../heads/liveHeads';
import { log } from '../log';
import type { LiveRecords } from '../sources/liveRecords';
import { nameOfSource, sourceOf } from '../sources/sources';
import { writeCounter } from '../store/opening/counter';
import type { Store } from '../store/store';
import { WrittenHead } from './writtenHead';

/** A page waits no longer for its record (milliseconds); it goes out as it is then. */
const PATIENCE = 2000;

/** Heads of pages whose records a source of live data has, for whoever writes them into pages. */
export class SourceHeads {
	private readonly maker: LiveHeadMaker;
	private readonly written: () => number;
	/** What the database said of its changes when no type that is released had a source. */
	private noneAt: number | undefined;
	private readonly made = new WeakMap<Fields, { readonly types: object; readonly by: Map<string, WrittenHead> }>();

	constructor(
		private readonly store: Store,
		private readonly site: string,
		private readonly records: LiveRecords
	) {
		this.maker = new LiveHeadMaker(store);
		this.written = writeCounter(store.db);
	}

	/** The head of a page, once its record is known; undefined for a page that no source has. Never throws. */
	of(path: string): Promise<WrittenHead | undefined> | undefined {
		try {
			const written = this.written();
			// Most sites have none: their pages are asked nothing more.
			if (written === this.noneAt) return undefined;
			const ready = this.maker.ready(this.site, { as: 'json' }, written);
			const types = [...ready.types.values()].filter(({ source }) => source !== undefined);
			this.noneAt = types.length === 0 ? written : undefined;
			const found = sourceOf(types, path);
			if (!found) return undefined;
			const made = this.make(found.path, found, ready).catch((error: unknown) => void log.error(error));
			return Promise.race([made, later()]);
		} catch (error) {
			// Nothing is released yet.
			if (!(error instanceof UserError)) log.error(error);
			return undefined;
		}
	}

	private async make(
		path: string,
		{ type, address }: NonNullable<ReturnType<typeof sourceOf>>,
		{ types, headOf }: ReturnType<LiveHeadMaker['ready']>
	): Promise<WrittenHead | undefined> {
		const { id } = this.store.working.sites.summary(this.site);
		const known = await this.records.get({ source: nameOfSource(id, type.name), address, mapping: type.mapping });
		if (known.is !== 'there') return undefined;
		let made = this.made.get(known.fields);
		if (made?.types !== types) this.made.set(known.fields, (made = { types, by: new Map() }));
		let head = made.by.get(path);
		if (!head) {
			const { json } = headOf({ path, type: type.name, fields: known.fields });
			if (!json) return undefined;
			head = new WrittenHead(json, digest('sha256', JSON.stringify(json)).slice(0, 12), Date.now());
			made.by.set(path, head);
		}
		return head;
	}
}

const later = () =>
	new Promise<undefined>((resolve) => {
		setTimeout(() => resolve(undefined), PATIENCE).unref();
	});
