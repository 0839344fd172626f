-- What each reader last showed of a page, and what came of telling it to fetch again.
CREATE TABLE reader_card (
	site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
	path TEXT NOT NULL,
	reader TEXT NOT NULL,
	-- What it showed; NULL where it could not read the page.
	shown TEXT CHECK (shown IS NULL OR json_valid(shown)),
	shut_out INTEGER NOT NULL DEFAULT 0,
	-- When it fetched the page, and until when it keeps the card; NULL: it keeps none.
	seen TEXT NOT NULL,
	until TEXT,
	told TEXT,
	PRIMARY KEY (site_id, path, reader)
) STRICT, WITHOUT ROWID;

-- Who made a release.
ALTER TABLE release ADD COLUMN author TEXT NOT NULL DEFAULT '';
