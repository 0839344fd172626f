-- Whether what the other page's head came to is read, and not only its fields: then its text and its rules matter too.
ALTER TABLE page_reads ADD COLUMN head INTEGER NOT NULL DEFAULT 0 CHECK (head IN (0, 1));
-- Pages that ask which pages stand directly below one read its folder, as `/walks/*`.
DROP TRIGGER page_read_comes;
CREATE TRIGGER page_read_comes AFTER INSERT ON page WHEN EXISTS (SELECT 1 FROM page_reads WHERE site_id = NEW.site_id) BEGIN
	UPDATE page_state SET seen = -1, touched = (SELECT revision FROM site WHERE id = NEW.site_id)
		WHERE page_id IN (SELECT page_id FROM page_reads WHERE site_id = NEW.site_id
			AND path IN (NEW.path, rtrim(rtrim(NEW.path, '/'), replace(NEW.path, '/', '')) || '*'));
END;
DROP TRIGGER page_read_changes;
CREATE TRIGGER page_read_changes AFTER UPDATE OF path, type, language, state, modified, hidden, fields, settings ON page
	WHEN OLD.path IS NOT NEW.path OR OLD.type IS NOT NEW.type OR OLD.language IS NOT NEW.language OR OLD.state IS NOT NEW.state
		OR OLD.modified IS NOT NEW.modified OR OLD.hidden IS NOT NEW.hidden OR OLD.fields IS NOT NEW.fields
		OR (OLD.settings IS NOT NEW.settings AND json_remove(OLD.settings, '$.pinned', '$.key', '$.target', '$.held')
			IS NOT json_remove(NEW.settings, '$.pinned', '$.key', '$.target', '$.held')) BEGIN
	UPDATE page_state SET seen = -1, touched = (SELECT revision FROM site WHERE id = NEW.site_id)
		WHERE page_id IN (SELECT page_id FROM page_reads WHERE site_id = NEW.site_id AND path IN (OLD.path, NEW.path));
END;
-- Which pages stand below another changes only with their paths, and with who sees them.
CREATE TRIGGER page_read_below AFTER UPDATE OF path, type, state ON page
	WHEN OLD.path IS NOT NEW.path OR OLD.type IS NOT NEW.type OR OLD.state IS NOT NEW.state BEGIN
	UPDATE page_state SET seen = -1, touched = (SELECT revision FROM site WHERE id = NEW.site_id)
		WHERE page_id IN (SELECT page_id FROM page_reads WHERE site_id = NEW.site_id
			AND path IN (rtrim(rtrim(OLD.path, '/'), replace(OLD.path, '/', '')) || '*', rtrim(rtrim(NEW.path, '/'), replace(NEW.path, '/', '')) || '*'));
END;
DROP TRIGGER page_read_goes;
CREATE TRIGGER page_read_goes AFTER DELETE ON page BEGIN
	UPDATE page_state SET seen = -1, touched = (SELECT revision FROM site WHERE id = OLD.site_id)
		WHERE page_id IN (SELECT page_id FROM page_reads WHERE site_id = OLD.site_id
			AND path IN (OLD.path, rtrim(rtrim(OLD.path, '/'), replace(OLD.path, '/', '')) || '*'));
END;
-- What a head comes to depends on the page's text, and on rules of the page and of its type.
CREATE TRIGGER body_read_comes AFTER INSERT ON page_body BEGIN
	UPDATE page_state SET seen = -1, touched = (SELECT revision FROM site WHERE id = page_state.site_id)
		WHERE page_id IN (SELECT r.page_id FROM page p JOIN page_reads r ON r.site_id = p.site_id AND r.path = p.path AND r.head = 1
			WHERE p.id = NEW.page_id);
END;
CREATE TRIGGER body_read_changes AFTER UPDATE OF body ON page_body WHEN OLD.body <> NEW.body BEGIN
	UPDATE page_state SET seen = -1, touched = (SELECT revision FROM site WHERE id = page_state.site_id)
		WHERE page_id IN (SELECT r.page_id FROM page p JOIN page_reads r ON r.site_id = p.site_id AND r.path = p.path AND r.head = 1
			WHERE p.id = NEW.page_id);
END;
CREATE TRIGGER body_read_goes AFTER DELETE ON page_body BEGIN
	UPDATE page_state SET seen = -1, touched = coalesce((SELECT revision FROM site WHERE id = page_state.site_id), 0)
		WHERE page_id IN (SELECT r.page_id FROM page p JOIN page_reads r ON r.site_id = p.site_id AND r.path = p.path AND r.head = 1
			WHERE p.id = OLD.page_id);
END;
CREATE TRIGGER rule_read_comes AFTER INSERT ON rule WHEN (NEW.page_id IS NOT NULL OR NEW.type_id IS NOT NULL)
	AND EXISTS (SELECT 1 FROM page_reads WHERE site_id = NEW.site_id) BEGIN
	UPDATE page_state SET seen = -1, touched = (SELECT revision FROM site WHERE id = NEW.site_id)
		WHERE page_id IN (SELECT r.page_id FROM page_reads r JOIN page p ON p.site_id = r.site_id AND p.path = r.path
			WHERE r.site_id = NEW.site_id AND r.head = 1
				AND (p.id = NEW.page_id OR p.type = (SELECT name FROM content_type WHERE id = NEW.type_id)));
END;
CREATE TRIGGER rule_read_changes AFTER UPDATE ON rule WHEN (NEW.page_id IS NOT NULL OR NEW.type_id IS NOT NULL)
	AND (OLD.body <> NEW.body OR OLD.tag <> NEW.tag OR OLD.language <> NEW.language)
	AND EXISTS (SELECT 1 FROM page_reads WHERE site_id = NEW.site_id) BEGIN
	UPDATE page_state SET seen = -1, touched = (SELECT revision FROM site WHERE id = NEW.site_id)
		WHERE page_id IN (SELECT r.page_id FROM page_reads r JOIN page p ON p.site_id = r.site_id AND p.path = r.path
			WHERE r.site_id = NEW.site_id AND r.head = 1
				AND (p.id = NEW.page_id OR p.type = (SELECT name FROM content_type WHERE id = NEW.type_id)));
END;
CREATE TRIGGER rule_read_goes AFTER DELETE ON rule WHEN (OLD.page_id IS NOT NULL OR OLD.type_id IS NOT NULL)
	AND EXISTS (SELECT 1 FROM page_reads WHERE site_id = OLD.site_id) BEGIN
	UPDATE page_state SET seen = -1, touched = coalesce((SELECT revision FROM site WHERE id = OLD.site_id), 0)
		WHERE page_id IN (SELECT r.page_id FROM page_reads r JOIN page p ON p.site_id = r.site_id AND p.path = r.path
			WHERE r.site_id = OLD.site_id AND r.head = 1
				AND (p.id = OLD.page_id OR p.type = (SELECT name FROM content_type WHERE id = OLD.type_id)));
END;
-- A reference to a former path is one to the page that it leads to.
CREATE TRIGGER redirect_read_comes AFTER INSERT ON redirect WHEN EXISTS (SELECT 1 FROM page_reads WHERE site_id = NEW.site_id) BEGIN
	UPDATE page_state SET seen = -1, touched = (SELECT revision FROM site WHERE id = NEW.site_id)
		WHERE page_id IN (SELECT page_id FROM page_reads WHERE site_id = NEW.site_id AND path = NEW.path);
END;
CREATE TRIGGER redirect_read_changes AFTER UPDATE ON redirect WHEN EXISTS (SELECT 1 FROM page_reads WHERE site_id = NEW.site_id) BEGIN
	UPDATE page_state SET seen = -1, touched = (SELECT revision FROM site WHERE id = NEW.site_id)
		WHERE page_id IN (SELECT page_id FROM page_reads WHERE site_id = NEW.site_id AND path IN (OLD.path, NEW.path));
END;
CREATE TRIGGER redirect_read_goes AFTER DELETE ON redirect WHEN EXISTS (SELECT 1 FROM page_reads WHERE site_id = OLD.site_id) BEGIN
	UPDATE page_state SET seen = -1, touched = coalesce((SELECT revision FROM site WHERE id = OLD.site_id), 0)
		WHERE page_id IN (SELECT page_id FROM page_reads WHERE site_id = OLD.site_id AND path = OLD.path);
END;
-- When the head comes to something else by itself, in milliseconds: what says something of the day does.
ALTER TABLE page_state ADD COLUMN changes_at INTEGER;
CREATE INDEX page_state_due ON page_state (site_id, changes_at) WHERE changes_at IS NOT NULL;
-- What was kept before is looked at again where it depends on the moment.
UPDATE page_state SET seen = -1 WHERE timed = 1;
