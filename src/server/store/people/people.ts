import { prepared, row, type Db, type Prepared } from '../opening/database';
import { PanelStore } from './panel';
import { PasskeyStore } from './passkeys';
import type { PageArea, Role, Scope, SiteRole } from '$core';

interface PersonRow {
	readonly id: number;
	readonly name: string;
	readonly password: string | null;
	readonly isOwner: 0 | 1;
	readonly isLocked: 0 | 1;
	readonly isKnown: 0 | 1;
	readonly made: string;
}
const COLUMNS = `p.id, p.name, p.password, p.is_owner AS isOwner, p.is_locked AS isLocked, p.made,
	EXISTS (SELECT 1 FROM person_subject WHERE person_id = p.id) AS isKnown`;
const PERSON = `SELECT ${COLUMNS} FROM person p`;

const SQL = {
	exist: row<{ n: 0 | 1 }>(`SELECT EXISTS (SELECT 1 FROM person) AS n`),
	named: row<PersonRow>(`${PERSON} WHERE name = ?`),
	byId: row<PersonRow>(`${PERSON} WHERE id = ?`),
	all: row<PersonRow>(`${PERSON} ORDER BY name`),
	add: row<{ id: number }>(`INSERT INTO person (name, is_owner, made) VALUES (@name, @isOwner, @made) RETURNING id`),
	setPassword: `UPDATE person SET password = @password WHERE id = @id`,
	setLocked: `UPDATE person SET is_locked = @isLocked WHERE id = @id`,
	setOwner: `UPDATE person SET is_owner = @isOwner WHERE id = @id`,
	drop: `DELETE FROM person WHERE id = ?`,
	countOwners: row<{ n: number }>(`SELECT count(*) AS n FROM person WHERE is_owner = 1 AND is_locked = 0 AND id <> ?`),
	rolesOf: row<{ site: string; role: Role; area: string }>(
		`SELECT s.name AS site, r.role, r.area FROM person_role r JOIN site s ON s.id = r.site_id WHERE r.person_id = ? ORDER BY s.name`
	),
	rolesAt: row<{ name: string; role: Role; area: string; isLocked: 0 | 1 }>(
		`SELECT p.name, r.role, r.area, p.is_locked AS isLocked FROM person_role r JOIN person p ON p.id = r.person_id
			WHERE r.site_id = ? ORDER BY p.name`
	),
	setRole: `INSERT INTO person_role (person_id, site_id, role, area) VALUES (@person, @site, @role, @area)
		ON CONFLICT (person_id, site_id) DO UPDATE SET role = excluded.role, area = excluded.area`,
	dropRole: `DELETE FROM person_role WHERE person_id = @person AND site_id = @site`,

	session: row<PersonRow & { begun: number; used: number; isSignedOn: 0 | 1; isStale: 0 | 1 }>(
		`SELECT ${COLUMNS}, s.made AS begun, s.used, s.is_signed_on AS isSignedOn, s.is_stale AS isStale
			FROM session s JOIN person p ON p.id = s.person_id WHERE s.hash = ?`
	),
	sessionsOf: row<{ hash: Buffer; made: number; used: number; agent: string }>(
		`SELECT hash, made, used, agent FROM session WHERE person_id = ? ORDER BY used DESC`
	),
	begin: `INSERT INTO session (hash, person_id, made, used, agent, is_signed_on)
		VALUES (@hash, @person, @now, @now, @agent, @isSignedOn)`,
	age: `UPDATE session SET is_stale = 1 WHERE person_id = ?`,
	renew: `INSERT INTO session (hash, person_id, made, used, agent, is_signed_on)
		SELECT @hash, person_id, made, used, agent, is_signed_on FROM session WHERE hash = @old AND is_stale = 1`,
	retire: `UPDATE session SET is_stale = 0, made = min(made, @made) WHERE hash = @old`,
	use: `UPDATE session SET used = @now WHERE hash = @hash`,
	end: `DELETE FROM session WHERE hash = ?`,
	endAllBut: `DELETE FROM session WHERE person_id = @person AND hash IS NOT @hash`,
	endOld: `DELETE FROM session WHERE used < @idle OR made < @old`,

	bySubject: row<PersonRow>(
		`${PERSON} JOIN person_subject s ON s.person_id = p.id WHERE s.issuer = @issuer AND s.subject = @subject`
	),
	addSubject: `INSERT INTO person_subject (issuer, subject, person_id) VALUES (@issuer, @subject, @person)`,
	dropCodes: `DELETE FROM recovery_code WHERE person_id = ?`,
	addCode: `INSERT INTO recovery_code (hash, person_id) VALUES (@hash, @person)`,
	takeCode: `DELETE FROM recovery_code WHERE hash = @hash AND person_id = @person`,
	countCodes: row<{ n: number }>(`SELECT count(*) AS n FROM recovery_code WHERE person_id = ?`),

	invite: `INSERT INTO invitation (hash, person_id, ends) VALUES (@hash, @person, @ends)`,
	invitation: row<PersonRow & { ends: number }>(
		`SELECT ${COLUMNS}, i.ends
			FROM invitation i JOIN person p ON p.id = i.person_id WHERE i.hash = ?`
	),
	dropInvitations: `DELETE FROM invitation WHERE person_id = ? OR ends < @now`,

	addKey: row<{ id: number }>(`INSERT INTO access_key (hash, name, site_id, scopes, maker, made, ends)
		VALUES (@hash, @name, @site, @scopes, @maker, @now, @ends) RETURNING id`),
	key: row<KeyRow & { site: string }>(
		`SELECT k.id, k.name, k.scopes, k.maker, k.made, k.ends, k.used, s.name AS site
			FROM access_key k JOIN site s ON s.id = k.site_id WHERE k.hash = ?`
	),
	keysAt: row<KeyRow>(
		`SELECT id, name, scopes, maker, made, ends, used FROM access_key WHERE site_id = ? ORDER BY id DESC`
	),
	useKey: `UPDATE access_key SET used = @now WHERE id = @id`,
	endKey: `UPDATE access_key SET ends = min(coalesce(ends, @ends), @ends) WHERE id = @id AND site_id = @site`,
	dropKey: `DELETE FROM access_key WHERE id = @id AND site_id = @site`
} as const;

interface KeyRow {
	readonly id: number;
	readonly name: string;
	readonly scopes: string;
	readonly maker: string;
	readonly made: number;
	readonly ends: number | null;
	readonly used: number | null;
}

export interface Person {
	readonly id: number;
	readonly name: string;
	/** The hash of the password; undefined until an invitation was taken. */
	readonly password: string | undefined;
	/** Has not come in yet. */
	readonly isInvited: boolean;
	/** Owner of every site. */
	readonly isOwner: boolean;
	readonly isLocked: boolean;
	readonly made: string;
}

/** A key of a machine; moments in milliseconds. */
export interface AccessKey {
	readonly id: number;
	readonly name: string;
	readonly scopes: readonly Scope[];
	readonly maker: string;
	readonly made: number;
	readonly ends: number | undefined;
	readonly used: number | undefined;
}

const personOf = ({ password, isOwner, isLocked, isKnown, id, name, made }: PersonRow): Person => ({
	...{ id, name, made, password: password ?? undefined, isOwner: isOwner === 1, isLocked: isLocked === 1 },
	isInvited: password === null && isKnown === 0
});
const keyOf = ({ scopes, ends, used, ...key }: KeyRow): AccessKey => ({
	...key,
	scopes: JSON.parse(scopes) as Scope[],
	ends: ends ?? undefined,
	used: used ?? undefined
});

/** Who may come in: people with their roles, their sessions and invitations, and the keys of machines. */
export class PeopleStore {
	readonly passkeys: PasskeyStore;
	readonly panel: PanelStore;
	private readonly run: Prepared<typeof SQL>;

	constructor(db: Db) {
		this.passkeys = new PasskeyStore(db);
		this.panel = new PanelStore(db);
		this.run = prepared(db, SQL);
	}

	/** Whether there is anyone: without, whoever is at this machine is alone. */
	exist(): boolean {
		return this.run('exist').get()!.n === 1;
	}
	named(name: string): Person | undefined {
		const found = this.run('named').get(name);
		return found && personOf(found);
	}
	byId(id: number): Person | undefined {
		const found = this.run('byId').get(id);
		return found && personOf(found);
	}
	all(): Person[] {
		return this.run('all').all().map(personOf);
	}
	/** All, with what each is at which site. */
	listed(): (Pick<Person, 'name' | 'isOwner' | 'isLocked' | 'isInvited'> & {
		readonly roles: Record<string, SiteRole>;
	})[] {
		return this.all().map(({ id, name, isOwner, isLocked, isInvited }) => ({
			...{ name, isOwner, isLocked, isInvited },
			roles: this.rolesOf(id)
		}));
	}
	add(name: string, isOwner: boolean, made: string): number {
		return this.run('add').get({ name, isOwner: isOwner ? 1 : 0, made })!.id;
	}
	setPassword(id: number, password: string) {
		this.run('setPassword').run({ id, password });
	}
	setLocked(id: number, isLocked: boolean) {
		this.run('setLocked').run({ id, isLocked: isLocked ? 1 : 0 });
	}
	setOwner(id: number, isOwner: boolean) {
		this.run('setOwner').run({ id, isOwner: isOwner ? 1 : 0 });
	}
	drop(id: number) {
		this.run('drop').run(id);
	}
	/** How many others own every site and can come in. */
	countOwnersBut(id: number): number {
		return this.run('countOwners').get(id)!.n;
	}

	/** The roles of a person, by the name of the site. */
	rolesOf(id: number): Record<string, SiteRole> {
		const roles = this.run('rolesOf').all(id);
		return Object.fromEntries(
			roles.map(({ site, role, area }) => [site, { role, area: JSON.parse(area) as PageArea }])
		);
	}
	rolesAt(site: number): { name: string; role: Role; area: PageArea; isLocked: boolean }[] {
		return this.run('rolesAt')
			.all(site)
			.map(({ area, isLocked, ...one }) => ({ ...one, area: JSON.parse(area) as PageArea, isLocked: isLocked === 1 }));
	}
	setRole(person: number, site: number, at: SiteRole | undefined) {
		if (at) this.run('setRole').run({ person, site, role: at.role, area: JSON.stringify(at.area) });
		else this.run('dropRole').run({ person, site });
	}

	/** The person of a session, with when it began and was used last. */
	session(
		hash: Buffer
	): { person: Person; made: number; used: number; isSignedOn: boolean; isStale: boolean } | undefined {
		const found = this.run('session').get(hash);
		return (
			found && {
				person: personOf(found),
				made: found.begun,
				used: found.used,
				isSignedOn: found.isSignedOn === 1,
				isStale: found.isStale === 1
			}
		);
	}
	sessionsOf(person: number): { hash: Buffer; made: number; used: number; agent: string }[] {
		return this.run('sessionsOf').all(person);
	}
	begin(hash: Buffer, person: number, now: number, agent: string, isSignedOn: boolean) {
		this.run('begin').run({ hash, person, now, agent, isSignedOn: isSignedOn ? 1 : 0 });
	}
	/** The rights of a person have changed: their sessions are renewed when they next ask. */
	age(person: number) {
		this.run('age').run(person);
	}
	/** Gives an aged session another secret, and takes the old one for begun at `made`; says whether it was one. */
	renew(old: Buffer, hash: Buffer, made: number): boolean {
		if (this.run('renew').run({ old, hash }).changes === 0) return false;
		this.run('retire').run({ old, made });
		return true;
	}
	use(hash: Buffer, now: number) {
		this.run('use').run({ hash, now });
	}
	end(hash: Buffer) {
		this.run('end').run(hash);
	}
	/** Ends the sessions of a person, but for one, and what lets panels in as them. */
	endAll(person: number, but: Buffer | null = null) {
		this.panel.endAll(person);
		this.run('endAllBut').run({ person, hash: but });
	}
	endOld(idle: number, old: number) {
		this.run('endOld').run({ idle, old });
	}

	/** The person whom an issuer of single sign-on knows as a subject. */
	bySubject(issuer: string, subject: string): Person | undefined {
		const found = this.run('bySubject').get({ issuer, subject });
		return found && personOf(found);
	}
	addSubject(issuer: string, subject: string, person: number) {
		this.run('addSubject').run({ issuer, subject, person });
	}

	/** Codes that take the place of those before. */
	setCodes(person: number, hashes: readonly Buffer[]) {
		this.run('dropCodes').run(person);
		for (const hash of hashes) this.run('addCode').run({ hash, person });
	}
	/** Takes a code, which is none any more; says whether it was one. */
	takeCode(person: number, hash: Buffer): boolean {
		return this.run('takeCode').run({ person, hash }).changes > 0;
	}
	countCodes(person: number): number {
		return this.run('countCodes').get(person)!.n;
	}

	/** An invitation takes the place of those before. */
	invite(hash: Buffer, person: number, ends: number) {
		this.run('dropInvitations').run(person, { now: 0 });
		this.run('invite').run({ hash, person, ends });
	}
	invitation(hash: Buffer): { person: Person; ends: number } | undefined {
		const found = this.run('invitation').get(hash);
		return found && { person: personOf(found), ends: found.ends };
	}
	/** Of a person, and those that are over. */
	dropInvitations(person: number, now: number) {
		this.run('dropInvitations').run(person, { now });
	}

	addKey(key: Pick<AccessKey, 'name' | 'scopes' | 'maker' | 'ends'>, site: number, hash: Buffer, now: number): number {
		const { name, scopes, maker, ends = null } = key;
		return this.run('addKey').get({ name, maker, ends, site, hash, now, scopes: JSON.stringify(scopes) })!.id;
	}
	key(hash: Buffer): (AccessKey & { site: string }) | undefined {
		const found = this.run('key').get(hash);
		return found && { ...keyOf(found), site: found.site };
	}
	keysAt(site: number): AccessKey[] {
		return this.run('keysAt').all(site).map(keyOf);
	}
	useKey(id: number, now: number) {
		this.run('useKey').run({ id, now });
	}
	/** Lets a key end at a moment, unless it ends before; says whether there was one. */
	endKey(id: number, site: number, ends: number): boolean {
		return this.run('endKey').run({ id, site, ends }).changes > 0;
	}
	/** Says whether there was one. */
	dropKey(id: number, site: number): boolean {
		return this.run('dropKey').run({ id, site }).changes > 0;
	}
}
