import { statSync } from 'node:fs';
import { UserError } from '../errors';
import { explain, openDatabase, type Db, type OpenOptions } from './opening/database';
import { PeopleStore } from './people/people';
import { TrailStore } from './people/trail';
import { HookStore } from './hooks/hooks';
import { PictureStore } from './pictures/pictures';
import { RecordStore } from './record/record';
import { ReleaseStore } from './releases/releases';
import { StateStore } from './state/state';
import { TableStore } from './table/table';
import { isUnfinished, mendUnfinished } from './unfinished';
import { WorkingStore } from './working/working';

export type { StoredSite } from './working/sites';

/** A database by its subjects. The only place, with the rooms below it, that knows the SQL. */
export class Store {
	readonly db: Db;
	readonly working: WorkingStore;
	readonly table: TableStore;
	readonly state: StateStore;
	readonly record: RecordStore;
	readonly releases: ReleaseStore;
	readonly pictures: PictureStore;
	readonly people: PeopleStore;
	readonly trail: TrailStore;
	readonly hooks: HookStore;
	/** What the file was when it was opened: its device and number. */
	private readonly mark: string;

	constructor(
		readonly file: string,
		options: OpenOptions = {}
	) {
		this.db = openDatabase(file, options);
		this.working = new WorkingStore(this.db, (work) => this.transaction(work));
		this.table = new TableStore(this.db);
		this.state = new StateStore(this.db);
		this.record = new RecordStore(this.db);
		this.releases = new ReleaseStore(this.db);
		this.pictures = new PictureStore(this.db);
		this.people = new PeopleStore(this.db);
		this.trail = new TrailStore(this.db);
		this.hooks = new HookStore(this.db);
		this.mark = markOf(file);
		if (!options.readonly) mendUnfinished(this.db, this.record);
		else if (isUnfinished(this.db, this.record)) mendWhereAllowed(file);
	}

	close() {
		this.db.close();
	}

	/** Whether another file, or none, stands where the database was opened. */
	isLost(): boolean {
		return markOf(this.file) !== this.mark;
	}

	/** Runs writes together, wholly or not at all; the driver's errors come out as sentences. */
	transaction<T>(work: () => T): T {
		if (this.db.inTransaction) return work();
		try {
			return this.db.transaction(work).immediate();
		} catch (error) {
			throw explain(error, this.file);
		}
	}
}

/** What was broken off is taken back before anyone reads it, where this user may write. */
function mendWhereAllowed(file: string) {
	try {
		new Store(file, { create: false }).close();
	} catch (error) {
		if (!(error instanceof UserError)) throw error;
	}
}

const markOf = (file: string) => {
	const found = statSync(file, { throwIfNoEntry: false });
	return found ? `${found.dev} ${found.ino}` : '';
};
