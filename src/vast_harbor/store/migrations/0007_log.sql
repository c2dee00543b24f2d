-- The log of a rig's banks: one row an entry, and what was read in columns, so that a year of readings is
-- found by time without reading any document. The sender makes the id: what is sent twice is kept once.
CREATE TABLE log_entry (
    rig_id     INTEGER NOT NULL REFERENCES rig (id) ON DELETE CASCADE,
    id         TEXT    NOT NULL,
    at         INTEGER NOT NULL,
    offset_min INTEGER NOT NULL,
    kind       TEXT    NOT NULL,
    bank       TEXT    NOT NULL,
    battery    INTEGER NOT NULL,
    volts      REAL,
    amps       REAL,
    soc        REAL,
    celsius    REAL,
    rested     INTEGER,
    ah         REAL,
    wh         REAL,
    litres     REAL,
    hours      REAL,
    price      REAL,
    frozen     INTEGER,
    source     TEXT    NOT NULL,
    duty       TEXT    NOT NULL,
    until      INTEGER,
    text       TEXT    NOT NULL,
    revision   INTEGER NOT NULL DEFAULT 1,
    removed_at TEXT,
    PRIMARY KEY (rig_id, id)
) WITHOUT ROWID;
CREATE INDEX log_time ON log_entry (rig_id, removed_at, at, id);
-- When something of a kind was done last, and what became of each duty.
CREATE INDEX log_kind ON log_entry (rig_id, removed_at, bank, kind, at);
CREATE INDEX log_duty ON log_entry (rig_id, removed_at, duty, at) WHERE duty != '';
