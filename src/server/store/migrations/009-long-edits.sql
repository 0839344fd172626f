-- Edits that are being made in several goes, so that others may write between them. One whose maker was ended on the way
-- is taken back by the next who opens the database to write.
CREATE TABLE unfinished (
	edit_id INTEGER PRIMARY KEY REFERENCES edit (id) ON DELETE CASCADE,
	-- The site was made by this edit, and goes with it.
	is_new INTEGER NOT NULL CHECK (is_new IN (0, 1))
) STRICT;
