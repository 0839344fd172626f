-- Where pages used to be: an old path leads to the page that has moved.
CREATE TABLE redirect (
	site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
	path TEXT NOT NULL,
	target TEXT NOT NULL,
	PRIMARY KEY (site_id, path)
) STRICT, WITHOUT ROWID;
