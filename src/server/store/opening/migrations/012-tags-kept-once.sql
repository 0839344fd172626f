-- Most pages have the same tags as many others: each set of them is kept once, and pages without a tag are found by it.
CREATE TABLE tag_set (
	id INTEGER PRIMARY KEY,
	-- The tags of a head, each between spaces.
	tags TEXT NOT NULL UNIQUE
) STRICT;
INSERT INTO tag_set (tags) SELECT DISTINCT tags FROM page_state WHERE tags <> '';
ALTER TABLE page_state ADD COLUMN tag_set INTEGER REFERENCES tag_set (id);
UPDATE page_state SET tag_set = (SELECT id FROM tag_set t WHERE t.tags = page_state.tags);
ALTER TABLE page_state DROP COLUMN tags;
CREATE INDEX page_state_tags ON page_state (site_id, tag_set);
