import type { Db } from '../opening/database';
import { BodyStore } from './bodies';
import { PageStore } from './pages';
import { ReadInStore } from './readIn';
import { RedirectStore } from './redirects';
import { RuleStore } from './rules';
import { SiteStore } from './sites';
import { SourceStore } from './sources';
import { TypeStore } from './types';

/** The working copy: what people edit and what is read in. */
export class WorkingStore {
	readonly bodies: BodyStore;
	readonly readIn: ReadInStore;
	readonly redirects: RedirectStore;
	readonly sources: SourceStore;
	readonly rules: RuleStore;
	readonly types: TypeStore;
	readonly sites: SiteStore;
	readonly pages: PageStore;

	constructor(db: Db, together: <T>(work: () => T) => T) {
		this.bodies = new BodyStore(db);
		this.readIn = new ReadInStore(db, this.bodies);
		this.redirects = new RedirectStore(db);
		this.sources = new SourceStore(db);
		this.rules = new RuleStore(db, together);
		this.types = new TypeStore(db, this.rules);
		this.sites = new SiteStore(db, this.rules, this.types);
		this.pages = new PageStore(db, this.rules, this.bodies, this.redirects);
	}

	/** Takes away what a site file no longer names. */
	*keepOnly(site: number, types: ReadonlySet<string>, paths: ReadonlySet<string>): Generator<void, void> {
		yield* this.pages.keepOnly(site, paths);
		this.types.keepOnly(site, types);
	}
}
