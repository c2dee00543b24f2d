-- The sender's own key of every edit, apart from the journal: an edit that was undone, typed over or is too old
-- for the journal is not done once more when its sender repeats it.
CREATE TABLE sent (
    rig_id INTEGER NOT NULL REFERENCES rig (id) ON DELETE CASCADE,
    key    TEXT    NOT NULL,
    id     INTEGER PRIMARY KEY,
    UNIQUE (rig_id, key)
);
INSERT OR IGNORE INTO sent (rig_id, key) SELECT rig_id, key FROM edit WHERE key != '' ORDER BY id;
