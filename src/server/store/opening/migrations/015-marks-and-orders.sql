-- A body that comes right with its page is taken back with it: one row in the record is enough for both.
DROP TRIGGER body_insert_noted;
CREATE TRIGGER body_insert_noted AFTER INSERT ON page_body WHEN EXISTS (SELECT 1 FROM editing) AND NOT EXISTS
	(SELECT 1 FROM edit_change c JOIN editing e USING (edit_id)
		WHERE c.id = (SELECT max(id) FROM edit_change) AND c.place = 'page' AND c.key = NEW.page_id AND c.before IS NULL) BEGIN
	INSERT INTO edit_change (edit_id, place, key) SELECT edit_id, 'page_body', NEW.page_id FROM editing;
END;

-- A page that an edit touched is marked by `seen` alone, also one that was touched while it was being looked at.
UPDATE page_state SET seen = -1 WHERE seen < touched;
DROP INDEX page_state_touched;

-- Pages of one type in every order.
CREATE INDEX page_state_type_title ON page_state (site_id, type, title);
CREATE INDEX page_state_type_title_width ON page_state (site_id, type, title_width);
CREATE INDEX page_state_type_description ON page_state (site_id, type, description);
CREATE INDEX page_state_type_description_width ON page_state (site_id, type, description_width);
CREATE INDEX page_state_type_picture ON page_state (site_id, type, picture);
CREATE INDEX page_state_type_heavy ON page_state (site_id, type, weight);
CREATE INDEX page_state_type_differs ON page_state (site_id, type, differs);
CREATE INDEX page_state_type_modified ON page_state (site_id, type, modified);
CREATE INDEX page_state_type_language ON page_state (site_id, type, language, path);
CREATE INDEX page_state_type_state ON page_state (site_id, type, state, path);
