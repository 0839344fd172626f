-- Files that were taken in before, by the hash of their bytes as they came: the same file is not decoded twice.
CREATE TABLE taken (
	original TEXT PRIMARY KEY,
	file TEXT NOT NULL,
	facts TEXT NOT NULL CHECK (json_valid(facts))
) STRICT, WITHOUT ROWID;

-- What share pictures are drawn from, so that one that was released can be drawn whenever it is asked for.
CREATE TABLE recipe (
	name TEXT NOT NULL,
	site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
	recipe TEXT NOT NULL CHECK (json_valid(recipe)),
	-- When a release last named it, or it was last composed. ISO 8601.
	used TEXT NOT NULL,
	PRIMARY KEY (name, site_id)
) STRICT, WITHOUT ROWID;
