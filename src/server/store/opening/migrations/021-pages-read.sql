-- Which paths each page reads fields of, as it was last looked at: pages there, and those that are not there yet.
CREATE TABLE page_reads (
	site_id INTEGER NOT NULL,
	path TEXT NOT NULL,
	page_id INTEGER NOT NULL REFERENCES page (id) ON DELETE CASCADE,
	PRIMARY KEY (site_id, path, page_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX page_reads_of ON page_reads (page_id);
-- A page that comes, changes or goes is looked at by those that read it; its body is read by none.
CREATE TRIGGER page_read_comes AFTER INSERT ON page BEGIN
	UPDATE page_state SET seen = -1, touched = (SELECT revision FROM site WHERE id = NEW.site_id)
		WHERE page_id IN (SELECT page_id FROM page_reads WHERE site_id = NEW.site_id AND path = NEW.path);
END;
CREATE TRIGGER page_read_changes AFTER UPDATE OF path, type, language, state, modified, fields ON page
	WHEN OLD.path IS NOT NEW.path OR OLD.type IS NOT NEW.type OR OLD.language IS NOT NEW.language OR OLD.state IS NOT NEW.state
		OR OLD.modified IS NOT NEW.modified OR OLD.fields IS NOT NEW.fields BEGIN
	UPDATE page_state SET seen = -1, touched = (SELECT revision FROM site WHERE id = NEW.site_id)
		WHERE page_id IN (SELECT page_id FROM page_reads WHERE site_id = NEW.site_id AND path IN (OLD.path, NEW.path));
END;
CREATE TRIGGER page_read_goes AFTER DELETE ON page BEGIN
	UPDATE page_state SET seen = -1, touched = (SELECT revision FROM site WHERE id = OLD.site_id)
		WHERE page_id IN (SELECT page_id FROM page_reads WHERE site_id = OLD.site_id AND path = OLD.path);
END;
-- What a type says of its fields, and whether its pages are public, is read by pages of other types as well.
CREATE TRIGGER page_read_of_type AFTER UPDATE OF settings ON content_type WHEN OLD.settings <> NEW.settings
	AND EXISTS (SELECT 1 FROM page_reads WHERE site_id = NEW.site_id) BEGIN
	UPDATE page_state SET seen = -1, touched = (SELECT revision FROM site WHERE id = NEW.site_id)
		WHERE page_id IN (SELECT r.page_id FROM page_reads r JOIN page p ON p.site_id = r.site_id AND p.path = r.path
			WHERE r.site_id = NEW.site_id AND p.type = NEW.name);
END;
