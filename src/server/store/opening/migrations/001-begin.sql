CREATE TABLE site (
	id INTEGER PRIMARY KEY,
	name TEXT NOT NULL UNIQUE,
	base TEXT NOT NULL,
	-- Languages, separator, fields and everything else of a site but its rules, as JSON.
	settings TEXT NOT NULL CHECK (json_valid(settings)),
	-- Counts every edit of the working copy.
	revision INTEGER NOT NULL DEFAULT 0
) STRICT;

CREATE TABLE content_type (
	id INTEGER PRIMARY KEY,
	site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
	name TEXT NOT NULL,
	settings TEXT NOT NULL CHECK (json_valid(settings)),
	UNIQUE (site_id, name)
) STRICT;

CREATE TABLE page (
	id INTEGER PRIMARY KEY,
	site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
	path TEXT NOT NULL,
	type TEXT NOT NULL,
	language TEXT,
	state TEXT NOT NULL CHECK (state IN ('live', 'draft', 'private')),
	modified TEXT,
	hidden INTEGER NOT NULL DEFAULT 0 CHECK (hidden IN (0, 1)),
	fields TEXT NOT NULL CHECK (json_valid(fields)),
	-- Listing, alternates, families, extra markup and found tags, as JSON.
	settings TEXT NOT NULL CHECK (json_valid(settings)),
	-- 'folder': read from a folder and still there. 'gone': read from a folder, no longer there.
	origin TEXT CHECK (origin IN ('folder', 'gone')),
	UNIQUE (site_id, path),
	FOREIGN KEY (site_id, type) REFERENCES content_type (site_id, name) ON UPDATE CASCADE
) STRICT;

CREATE INDEX page_by_type ON page (site_id, type);

-- The layer is told by the owner: a page, a type, or neither for the site.
CREATE TABLE rule (
	id INTEGER PRIMARY KEY,
	site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
	type_id INTEGER REFERENCES content_type (id) ON DELETE CASCADE,
	page_id INTEGER REFERENCES page (id) ON DELETE CASCADE,
	tag TEXT NOT NULL,
	language TEXT NOT NULL DEFAULT '',
	body TEXT NOT NULL CHECK (json_valid(body)),
	CHECK (type_id IS NULL OR page_id IS NULL)
) STRICT;

CREATE UNIQUE INDEX rule_place ON rule (site_id, coalesce(type_id, 0), coalesce(page_id, 0), tag, language);
CREATE INDEX rule_by_type ON rule (type_id) WHERE type_id IS NOT NULL;
CREATE INDEX rule_by_page ON rule (page_id) WHERE page_id IS NOT NULL;

CREATE TABLE picture (
	site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
	src TEXT NOT NULL,
	facts TEXT NOT NULL CHECK (json_valid(facts)),
	PRIMARY KEY (site_id, src)
) STRICT, WITHOUT ROWID;

CREATE TABLE release (
	id INTEGER PRIMARY KEY,
	site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
	number INTEGER NOT NULL,
	created TEXT NOT NULL,
	pages INTEGER NOT NULL,
	-- The working copy's revision it was made from.
	revision INTEGER NOT NULL,
	UNIQUE (site_id, number)
) STRICT;

-- Rendered heads by the hash of their markup: releases share what did not change.
CREATE TABLE head (
	hash TEXT PRIMARY KEY,
	html TEXT NOT NULL,
	json TEXT NOT NULL CHECK (json_valid(json))
) STRICT, WITHOUT ROWID;

CREATE TABLE released_page (
	release_id INTEGER NOT NULL REFERENCES release (id) ON DELETE CASCADE,
	path TEXT NOT NULL,
	address TEXT NOT NULL,
	head TEXT NOT NULL REFERENCES head (hash),
	PRIMARY KEY (release_id, path)
) STRICT, WITHOUT ROWID;

CREATE INDEX released_page_by_address ON released_page (release_id, address);
