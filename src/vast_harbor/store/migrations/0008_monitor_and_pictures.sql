-- What monitors logged: one row a reading, by the owner's clock and UTC; the files they came from; and sums by
-- the hour, so that a year is drawn and totalled without reading half a million rows.
CREATE TABLE monitor_file (
    rig_id   INTEGER NOT NULL REFERENCES rig (id) ON DELETE CASCADE,
    id       INTEGER PRIMARY KEY,
    bank     TEXT    NOT NULL,
    name     TEXT    NOT NULL,
    digest   TEXT    NOT NULL,
    added_at INTEGER NOT NULL,
    told     TEXT    NOT NULL -- what was found in it, JSON
);
CREATE INDEX monitor_file_rig ON monitor_file (rig_id, bank);
CREATE TABLE monitor_reading (
    rig_id     INTEGER NOT NULL REFERENCES rig (id) ON DELETE CASCADE,
    bank       TEXT    NOT NULL,
    at         INTEGER NOT NULL,
    offset_min INTEGER NOT NULL,
    volts      REAL,
    amps       REAL,
    soc        REAL,
    celsius    REAL,
    file_id    INTEGER NOT NULL REFERENCES monitor_file (id) ON DELETE CASCADE,
    PRIMARY KEY (rig_id, bank, at)
) WITHOUT ROWID;
CREATE INDEX monitor_reading_file ON monitor_reading (file_id);
CREATE TABLE monitor_hour (
    rig_id      INTEGER NOT NULL REFERENCES rig (id) ON DELETE CASCADE,
    bank        TEXT    NOT NULL,
    hour        INTEGER NOT NULL, -- hours since 1970 by the owner's clock
    covered_s   REAL    NOT NULL,
    ah_in       REAL    NOT NULL,
    ah_out      REAL    NOT NULL,
    wh_in       REAL    NOT NULL,
    wh_out      REAL    NOT NULL,
    volts_low   REAL,
    volts_high  REAL,
    amps_low    REAL,
    amps_high   REAL,
    soc_low     REAL,
    soc_high    REAL,
    celsius_low REAL,
    celsius_high REAL,
    PRIMARY KEY (rig_id, bank, hour)
) WITHOUT ROWID;
-- Pictures of entries, of steps of the changeover, and of the old wiring: scaled down, without what a camera
-- adds. The sender makes the id: what is sent twice is kept once.
CREATE TABLE picture (
    rig_id     INTEGER NOT NULL REFERENCES rig (id) ON DELETE CASCADE,
    id         TEXT    NOT NULL,
    place      TEXT    NOT NULL, -- entry:<id>, step:<key> or wiring
    at         INTEGER NOT NULL,
    name       TEXT    NOT NULL,
    width      INTEGER NOT NULL,
    height     INTEGER NOT NULL,
    large      BLOB    NOT NULL, -- JPEG
    small      BLOB    NOT NULL,
    removed_at TEXT,
    PRIMARY KEY (rig_id, id)
);
CREATE INDEX picture_place ON picture (rig_id, removed_at, place, at);
