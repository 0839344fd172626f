-- Every order of the table of pages, and what few pages have, without sorting or going over all of them.
CREATE INDEX page_state_title_width ON page_state (site_id, title_width);
CREATE INDEX page_state_description_width ON page_state (site_id, description_width);
CREATE INDEX page_state_description ON page_state (site_id, description);
-- Pages of one kind are mostly wanted by path.
DROP INDEX page_state_type;
CREATE INDEX page_state_type ON page_state (site_id, type, path);
DROP INDEX page_state_language;
CREATE INDEX page_state_language ON page_state (site_id, language, path);
DROP INDEX page_state_state;
CREATE INDEX page_state_state ON page_state (site_id, state, path);
DROP INDEX page_state_picture;
CREATE INDEX page_state_picture ON page_state (site_id, picture);
DROP INDEX page_state_differs;
CREATE INDEX page_state_differs ON page_state (site_id, differs);
CREATE INDEX page_state_key ON page_state (site_id) WHERE is_key = 1;
CREATE INDEX page_state_title_from ON page_state (site_id, title_from) WHERE title_from <> '';
CREATE INDEX page_state_description_from ON page_state (site_id, description_from) WHERE description_from <> '';
CREATE INDEX page_state_picture_from ON page_state (site_id, picture_from) WHERE picture_from <> '';
