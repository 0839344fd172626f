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
