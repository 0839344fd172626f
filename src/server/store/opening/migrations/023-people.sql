-- Who may come in. Without anyone, whoever is at this machine is alone and may do all.
CREATE TABLE person (
	id INTEGER PRIMARY KEY,
	name TEXT NOT NULL UNIQUE COLLATE NOCASE,
	-- Argon2id, with its parameters; null until an invitation was taken.
	password TEXT,
	-- Owner of every site, and of those to come.
	is_owner INTEGER NOT NULL DEFAULT 0 CHECK (is_owner IN (0, 1)),
	is_locked INTEGER NOT NULL DEFAULT 0 CHECK (is_locked IN (0, 1)),
	made TEXT NOT NULL
) STRICT;
CREATE TABLE person_role (
	person_id INTEGER NOT NULL REFERENCES person (id) ON DELETE CASCADE,
	site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
	role TEXT NOT NULL CHECK (role IN ('owner', 'builder', 'editor', 'reviewer', 'reader')),
	-- Paths, types and languages that the role is for; {} for the whole site.
	area TEXT NOT NULL CHECK (json_valid(area)),
	PRIMARY KEY (person_id, site_id)
) STRICT, WITHOUT ROWID;
-- Of what lets someone in only a hash (SHA-256) is kept.
CREATE TABLE session (
	hash BLOB PRIMARY KEY,
	person_id INTEGER NOT NULL REFERENCES person (id) ON DELETE CASCADE,
	-- Milliseconds since 1970.
	made INTEGER NOT NULL,
	used INTEGER NOT NULL,
	agent TEXT NOT NULL,
	-- Begun by single sign-on: it is ended there, too.
	is_signed_on INTEGER NOT NULL DEFAULT 0 CHECK (is_signed_on IN (0, 1)),
	-- The rights of its person have changed since: its secret is renewed.
	is_stale INTEGER NOT NULL DEFAULT 0 CHECK (is_stale IN (0, 1))
) STRICT, WITHOUT ROWID;
CREATE INDEX session_of ON session (person_id);
CREATE TABLE invitation (
	hash BLOB PRIMARY KEY,
	person_id INTEGER NOT NULL REFERENCES person (id) ON DELETE CASCADE,
	ends INTEGER NOT NULL
) STRICT, WITHOUT ROWID;
CREATE TABLE access_key (
	id INTEGER PRIMARY KEY,
	hash BLOB NOT NULL UNIQUE,
	name TEXT NOT NULL,
	site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
	scopes TEXT NOT NULL CHECK (json_valid(scopes)),
	maker TEXT NOT NULL,
	made INTEGER NOT NULL,
	ends INTEGER,
	used INTEGER
) STRICT;
-- What was done beside edits. Lines are only added; each has the hash of itself and of the one before.
CREATE TABLE trail (
	id INTEGER PRIMARY KEY,
	at TEXT NOT NULL,
	who TEXT NOT NULL,
	what TEXT NOT NULL,
	site TEXT,
	data TEXT NOT NULL CHECK (json_valid(data)),
	hash TEXT NOT NULL
) STRICT;
CREATE TRIGGER trail_stays BEFORE UPDATE ON trail BEGIN SELECT RAISE(ABORT, 'the trail is only added to'); END;
-- Where it begins, after the number and hash of the last line whose time was over; the hash of its newest line; how many days it is kept.
CREATE TABLE trail_base (
	one INTEGER PRIMARY KEY CHECK (one = 1),
	last INTEGER NOT NULL,
	hash TEXT NOT NULL,
	newest TEXT NOT NULL,
	days INTEGER CHECK (days > 0)
) STRICT;
INSERT INTO trail_base (one, last, hash, newest) VALUES (1, 0, '', '');
CREATE TRIGGER trail_grows AFTER INSERT ON trail BEGIN UPDATE trail_base SET newest = NEW.hash; END;
CREATE TRIGGER trail_remains BEFORE DELETE ON trail WHEN OLD.id > (SELECT last FROM trail_base) BEGIN
	SELECT RAISE(ABORT, 'the trail is only added to');
END;
-- Failed tries to sign in, by account and address, with when they are forgotten (milliseconds).
CREATE TABLE sign_in_try (key TEXT PRIMARY KEY, points INTEGER NOT NULL DEFAULT 0, expire INTEGER) STRICT;
-- Passkeys (WebAuthn level 3): what a person's device signs with; only the public part.
CREATE TABLE passkey (
	id TEXT PRIMARY KEY,
	person_id INTEGER NOT NULL REFERENCES person (id) ON DELETE CASCADE,
	name TEXT NOT NULL,
	public_key BLOB NOT NULL,
	counter INTEGER NOT NULL,
	made INTEGER NOT NULL,
	used INTEGER
) STRICT;
CREATE INDEX passkey_of ON passkey (person_id);
-- Who a person is to the issuer of single sign-on (OpenID Connect).
CREATE TABLE person_subject (
	issuer TEXT NOT NULL,
	subject TEXT NOT NULL,
	person_id INTEGER NOT NULL REFERENCES person (id) ON DELETE CASCADE,
	PRIMARY KEY (issuer, subject)
) STRICT, WITHOUT ROWID;
CREATE INDEX subject_of ON person_subject (person_id);
-- Codes that let a person in once each, where nothing else does.
CREATE TABLE recovery_code (
	hash BLOB PRIMARY KEY,
	person_id INTEGER NOT NULL REFERENCES person (id) ON DELETE CASCADE
) STRICT, WITHOUT ROWID;
CREATE INDEX recovery_of ON recovery_code (person_id);
-- What a device is asked to sign, once, and soon; and what goes with a sign-on that is under way.
CREATE TABLE challenge (
	hash BLOB PRIMARY KEY,
	challenge TEXT NOT NULL,
	person_id INTEGER REFERENCES person (id) ON DELETE CASCADE,
	ends INTEGER NOT NULL
) STRICT, WITHOUT ROWID;

-- Whose a picture of the library is or was, by the hash that the names of its files begin with: one that only private sites have is
-- shown to nobody else.
CREATE TABLE media_of (
	hash TEXT NOT NULL,
	site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
	PRIMARY KEY (hash, site_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX media_at ON media_of (site_id);
INSERT OR IGNORE INTO media_of (hash, site_id)
	SELECT substr(src, 8, 24), site_id FROM picture WHERE src LIKE '/media/%'
	UNION SELECT substr(json_extract(facts, '$.kept.file'), 1, 24), site_id FROM picture WHERE facts LIKE '%"kept"%'
		AND json_extract(facts, '$.kept.file') IS NOT NULL
	UNION SELECT substr(value, 1, 24), r.site_id FROM (SELECT DISTINCT site_id, head FROM released) r
		JOIN head h ON h.hash = r.head, json_each(media_names(h.json)) WHERE value NOT LIKE 'share-%';
-- What is to be left alone is asked for: in a trigger the outer statement says what is done in a conflict.
CREATE TRIGGER picture_taken AFTER INSERT ON picture WHEN NEW.src LIKE '/media/%' BEGIN
	INSERT INTO media_of (hash, site_id) SELECT substr(NEW.src, 8, 24), NEW.site_id
		WHERE NOT EXISTS (SELECT 1 FROM media_of WHERE hash = substr(NEW.src, 8, 24) AND site_id = NEW.site_id);
END;
CREATE TRIGGER picture_copied AFTER INSERT ON picture WHEN json_extract(NEW.facts, '$.kept.file') IS NOT NULL BEGIN
	INSERT INTO media_of (hash, site_id) SELECT substr(json_extract(NEW.facts, '$.kept.file'), 1, 24), NEW.site_id
		WHERE NOT EXISTS (SELECT 1 FROM media_of WHERE hash = substr(json_extract(NEW.facts, '$.kept.file'), 1, 24) AND site_id = NEW.site_id);
END;
CREATE TRIGGER picture_copied_anew AFTER UPDATE OF facts ON picture WHEN json_extract(NEW.facts, '$.kept.file') IS NOT NULL BEGIN
	INSERT INTO media_of (hash, site_id) SELECT substr(json_extract(NEW.facts, '$.kept.file'), 1, 24), NEW.site_id
		WHERE NOT EXISTS (SELECT 1 FROM media_of WHERE hash = substr(json_extract(NEW.facts, '$.kept.file'), 1, 24) AND site_id = NEW.site_id);
END;
-- The same of versions: a page that names one path in two languages is saved again.
DROP TRIGGER page_version_named;
DROP TRIGGER page_version_changed;
CREATE TRIGGER page_version_named AFTER INSERT ON page WHEN instr(NEW.settings, '"alternates"') BEGIN
	INSERT INTO page_version SELECT DISTINCT NEW.site_id, value, NEW.id
		FROM json_each(NEW.settings, '$.alternates') WHERE type = 'text' AND value LIKE '/%';
END;
CREATE TRIGGER page_version_changed AFTER UPDATE OF settings ON page
	WHEN OLD.settings <> NEW.settings AND (instr(OLD.settings, '"alternates"') OR instr(NEW.settings, '"alternates"')) BEGIN
	DELETE FROM page_version WHERE page_id = NEW.id;
	INSERT INTO page_version SELECT DISTINCT NEW.site_id, value, NEW.id
		FROM json_each(NEW.settings, '$.alternates') WHERE type = 'text' AND value LIKE '/%';
END;
