-- What was wrong or weak on the pages of each release, by kind. Of releases made before, and of those of single pages, it
-- is not known.
ALTER TABLE release ADD COLUMN looked INTEGER NOT NULL DEFAULT 0;
CREATE TABLE release_finding (
	release_id INTEGER NOT NULL REFERENCES release (id) ON DELETE CASCADE,
	code TEXT NOT NULL,
	tag TEXT NOT NULL,
	pages INTEGER NOT NULL,
	weight INTEGER NOT NULL,
	PRIMARY KEY (release_id, code, tag)
) STRICT, WITHOUT ROWID;
