-- Origins whose pages may show the panel, and what lets the panel in where no session comes along: for one page, for a while.
CREATE TABLE panel_origin (
	site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
	origin TEXT NOT NULL,
	PRIMARY KEY (site_id, origin)
) STRICT, WITHOUT ROWID;
CREATE TABLE panel_token (
	hash BLOB PRIMARY KEY,
	site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
	person_id INTEGER NOT NULL REFERENCES person (id) ON DELETE CASCADE,
	-- The key of whoever asked for it; it ends with its key.
	key_id INTEGER REFERENCES access_key (id) ON DELETE CASCADE,
	path TEXT NOT NULL,
	begun INTEGER NOT NULL,
	ends INTEGER NOT NULL
) STRICT;
CREATE INDEX panel_token_site ON panel_token (site_id);
CREATE INDEX panel_token_person ON panel_token (person_id);
CREATE INDEX panel_token_key ON panel_token (key_id) WHERE key_id IS NOT NULL;
-- Sources of live data that are away, since when, and why. Of one that answers there is no row.
CREATE TABLE source_away (
	site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
	type TEXT NOT NULL,
	since INTEGER NOT NULL,
	why TEXT NOT NULL,
	PRIMARY KEY (site_id, type)
) STRICT, WITHOUT ROWID;
