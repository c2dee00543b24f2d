-- The sender's own key of an edit or a new rig: what is sent twice because the answer was lost is done once.
ALTER TABLE edit ADD COLUMN key TEXT NOT NULL DEFAULT '';
ALTER TABLE rig ADD COLUMN key TEXT NOT NULL DEFAULT '';
CREATE UNIQUE INDEX rig_key ON rig (key) WHERE key != '';
