-- Words of paths, from the moment a page is in: its other words follow when it was looked at.
CREATE VIRTUAL TABLE path_search USING fts5 (path, content = '', contentless_delete = 1, detail = none);
INSERT INTO path_search (rowid, path) SELECT page_id, path FROM page_state;
CREATE TRIGGER page_state_path_known AFTER INSERT ON page_state BEGIN
	INSERT INTO path_search (rowid, path) VALUES (NEW.page_id, NEW.path);
END;
CREATE TRIGGER page_state_path_changed AFTER UPDATE OF path ON page_state WHEN OLD.path <> NEW.path BEGIN
	INSERT OR REPLACE INTO path_search (rowid, path) VALUES (NEW.page_id, NEW.path);
END;
CREATE TRIGGER page_state_path_forgotten AFTER DELETE ON page_state BEGIN
	DELETE FROM path_search WHERE rowid = OLD.page_id;
END;
