-- Edits that are being made in several goes, so that others may write between them. One whose maker was ended on the way
-- is taken back by the next who opens the database to write.
CREATE TABLE unfinished (
	edit_id INTEGER PRIMARY KEY REFERENCES edit (id) ON DELETE CASCADE,
	-- The site was made by this edit, and goes with it.
	is_new INTEGER NOT NULL CHECK (is_new IN (0, 1))
) STRICT;

-- How many fields a page leaves empty, and how many characters in a hundred of its title and description are strange:
-- what makes it hard on templates.
ALTER TABLE page_state ADD COLUMN missing INTEGER NOT NULL DEFAULT 0;
ALTER TABLE page_state ADD COLUMN strange INTEGER NOT NULL DEFAULT 0;
UPDATE page_state SET seen = -1;

-- What a page's address answered to each of two readers when it was last verified, so that it can be asked whether that
-- still holds.
CREATE TABLE verified (
	site_id INTEGER NOT NULL REFERENCES site (id) ON DELETE CASCADE,
	path TEXT NOT NULL,
	reader TEXT NOT NULL,
	-- The released head it was compared with, and what came of it.
	head TEXT NOT NULL,
	drift TEXT NOT NULL CHECK (json_valid(drift)),
	-- What the server said to ask with; one of them at least.
	etag TEXT,
	modified TEXT,
	PRIMARY KEY (site_id, path, reader)
) STRICT, WITHOUT ROWID;
