-- Where the content of a site was read from, and what was said about reading it: kept for the next reading.
CREATE TABLE import_source (
	site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
	kind TEXT NOT NULL,
	settings TEXT NOT NULL,
	PRIMARY KEY (site_id, kind)
) STRICT;

-- What was read out of each file, so that one that has not changed need not be read again.
CREATE TABLE import_file (
	site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
	file TEXT NOT NULL,
	size INTEGER NOT NULL,
	modified INTEGER NOT NULL,
	reading BLOB NOT NULL,
	-- The hash of what was put in for it.
	result TEXT,
	PRIMARY KEY (site_id, file)
) STRICT, WITHOUT ROWID;
