import { prepared, row, type Db, type Prepared } from '../opening/database';

const SQL = {
	of: row<PasskeyRow>(`SELECT id, person_id AS person, name, public_key AS publicKey, counter, made, used FROM passkey
		WHERE person_id = ? ORDER BY made`),
	one: row<PasskeyRow>(
		`SELECT id, person_id AS person, name, public_key AS publicKey, counter, made, used FROM passkey WHERE id = ?`
	),
	add: `INSERT INTO passkey (id, person_id, name, public_key, counter, made) VALUES (@id, @person, @name, @publicKey, @counter, @made)`,
	use: `UPDATE passkey SET counter = @counter, used = @used WHERE id = @id`,
	rename: `UPDATE passkey SET name = @name WHERE id = @id AND person_id = @person`,
	drop: `DELETE FROM passkey WHERE id = @id AND person_id = @person`,
	ask: `INSERT INTO challenge (hash, challenge, person_id, ends) VALUES (@hash, @challenge, @person, @ends)`,
	asked: row<{ challenge: string; person: number | null; ends: number }>(
		`DELETE FROM challenge WHERE hash = ? RETURNING challenge, person_id AS person, ends`
	),
	dropOld: `DELETE FROM challenge WHERE ends < ?`
} as const;

interface PasskeyRow {
	readonly id: string;
	readonly person: number;
	readonly name: string;
	readonly publicKey: Buffer;
	readonly counter: number;
	readonly made: number;
	readonly used: number | null;
}
export type Passkey = PasskeyRow;

/** Passkeys of people, and what devices are asked to sign. */
export class PasskeyStore {
	private readonly run: Prepared<typeof SQL>;

	constructor(db: Db) {
		this.run = prepared(db, SQL);
	}

	of(person: number): Passkey[] {
		return this.run('of').all(person);
	}
	one(id: string): Passkey | undefined {
		return this.run('one').get(id);
	}
	add(passkey: Omit<Passkey, 'used'>) {
		this.run('add').run(passkey);
	}
	use(id: string, counter: number, used: number) {
		this.run('use').run({ id, counter, used });
	}
	/** Says whether the person has it. */
	rename(id: string, person: number, name: string): boolean {
		return this.run('rename').run({ id, person, name }).changes > 0;
	}
	/** Says whether the person had it. */
	drop(id: string, person: number): boolean {
		return this.run('drop').run({ id, person }).changes > 0;
	}

	ask(hash: Buffer, challenge: string, person: number | null, ends: number) {
		this.run('dropOld').run(Date.now());
		this.run('ask').run({ hash, challenge, person, ends });
	}
	/** What was asked, which is asked no more; undefined for what is over. */
	asked(hash: Buffer): { readonly challenge: string; readonly person: number | null } | undefined {
		const found = this.run('asked').get(hash);
		return found && found.ends > Date.now() ? found : undefined;
	}
}
