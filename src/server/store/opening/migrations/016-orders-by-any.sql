-- Orders by the columns that had none.
CREATE INDEX page_state_card ON page_state (site_id, card, path);
CREATE INDEX page_state_target ON page_state (site_id, target);
CREATE INDEX page_state_by_key ON page_state (site_id, is_key, path);
CREATE INDEX page_state_type_card ON page_state (site_id, type, card, path);
CREATE INDEX page_state_type_target ON page_state (site_id, type, target);
CREATE INDEX page_state_type_by_key ON page_state (site_id, type, is_key, path);
