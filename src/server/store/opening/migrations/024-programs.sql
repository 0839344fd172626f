-- What programs sent of pages: which source it was, and the fields that it sent last.
CREATE TABLE pushed (
	site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
	path TEXT NOT NULL,
	source TEXT NOT NULL,
	fields TEXT NOT NULL CHECK (json_valid(fields)),
	PRIMARY KEY (site_id, path)
) STRICT, WITHOUT ROWID;
-- The site and its types as a release found them: heads of live data are made by those. Many releases have the same.
CREATE TABLE rule_set (
	hash TEXT PRIMARY KEY,
	model TEXT NOT NULL CHECK (json_valid(model))
) STRICT, WITHOUT ROWID;
ALTER TABLE release ADD COLUMN rules TEXT REFERENCES rule_set (hash);
