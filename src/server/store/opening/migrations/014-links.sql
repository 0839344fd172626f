-- Where the links of a page's own file lead on the site, a path each, a line end before, between and after them.
CREATE TABLE page_link (
	page_id INTEGER PRIMARY KEY REFERENCES page (id) ON DELETE CASCADE,
	links TEXT NOT NULL
) STRICT;
