-- Which pages name a path of the site as another version of theirs: asked for by path, of 100,000 pages.
CREATE TABLE page_version (
	site_id INTEGER NOT NULL,
	path TEXT NOT NULL,
	page_id INTEGER NOT NULL REFERENCES page (id) ON DELETE CASCADE,
	PRIMARY KEY (site_id, path, page_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX page_version_of ON page_version (page_id);
INSERT OR IGNORE INTO page_version SELECT p.site_id, j.value, p.id
	FROM page p JOIN json_each(p.settings, '$.alternates') j WHERE instr(p.settings, '"alternates"') AND j.type = 'text' AND j.value LIKE '/%';
CREATE TRIGGER page_version_named AFTER INSERT ON page WHEN instr(NEW.settings, '"alternates"') BEGIN
	INSERT OR IGNORE INTO page_version SELECT NEW.site_id, value, NEW.id
		FROM json_each(NEW.settings, '$.alternates') WHERE type = 'text' AND value LIKE '/%';
END;
CREATE TRIGGER page_version_changed AFTER UPDATE OF settings ON page
	WHEN OLD.settings <> NEW.settings AND (instr(OLD.settings, '"alternates"') OR instr(NEW.settings, '"alternates"')) BEGIN
	DELETE FROM page_version WHERE page_id = NEW.id;
	INSERT OR IGNORE INTO page_version SELECT NEW.site_id, value, NEW.id
		FROM json_each(NEW.settings, '$.alternates') WHERE type = 'text' AND value LIKE '/%';
END;
