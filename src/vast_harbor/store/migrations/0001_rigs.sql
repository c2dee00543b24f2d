-- A rig is one document, the same as its rig file, so that the file, the database and the undo journal
-- share one schema and one way of upgrading it. What lists need is drawn out as generated columns.
CREATE TABLE rig (
    id         INTEGER PRIMARY KEY,
    document   TEXT    NOT NULL CHECK (json_valid(document)),
    revision   INTEGER NOT NULL DEFAULT 1,
    created_at TEXT    NOT NULL,
    updated_at TEXT    NOT NULL,
    deleted_at TEXT,
    name       TEXT GENERATED ALWAYS AS (json_extract(document, '$.rig.name')) VIRTUAL
);

-- The journal of edits: JSON Patch forward and back. An undone edit can be redone until the next one.
CREATE TABLE edit (
    id       INTEGER PRIMARY KEY,
    rig_id   INTEGER NOT NULL REFERENCES rig (id) ON DELETE CASCADE,
    at       TEXT    NOT NULL,
    label    TEXT    NOT NULL,
    field    TEXT    NOT NULL DEFAULT '',
    forward  TEXT    NOT NULL,
    backward TEXT    NOT NULL,
    undone   INTEGER NOT NULL DEFAULT 0
);
CREATE INDEX edit_of_rig ON edit (rig_id, id);

CREATE TABLE setting (
    key   TEXT PRIMARY KEY,
    value TEXT NOT NULL
);
