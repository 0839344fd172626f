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

-- Addresses that are to be read for a site, in their order, and what came of those that were: taken up again after a stop.
CREATE TABLE crawl (
	site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
	address TEXT NOT NULL,
	number INTEGER NOT NULL,
	depth INTEGER NOT NULL,
	-- NULL: still to be read; '' read; else why it is no page.
	result TEXT,
	PRIMARY KEY (site_id, address)
) STRICT, WITHOUT ROWID;
CREATE INDEX crawl_waiting ON crawl (site_id, number) WHERE result IS NULL;

-- Of a page with an origin: which kind of source it came from, where that is not a folder.
ALTER TABLE page ADD COLUMN source TEXT;
