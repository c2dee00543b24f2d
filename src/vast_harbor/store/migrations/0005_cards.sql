-- What a card shows of a rig, as it was worked out last, and of what: its revision, the day and the program.
ALTER TABLE rig ADD COLUMN card TEXT;
ALTER TABLE rig ADD COLUMN card_revision INTEGER NOT NULL DEFAULT 0;
ALTER TABLE rig ADD COLUMN card_day TEXT NOT NULL DEFAULT '';
ALTER TABLE rig ADD COLUMN card_build TEXT NOT NULL DEFAULT '';

-- Thousands of rigs are listed and searched without reading one document.
ALTER TABLE rig ADD COLUMN kind TEXT GENERATED ALWAYS AS (json_extract(document, '$.rig.kind')) VIRTUAL;
ALTER TABLE rig ADD COLUMN notes TEXT GENERATED ALWAYS AS (json_extract(document, '$.rig.notes')) VIRTUAL;
CREATE INDEX rig_list ON rig (
    deleted_at, updated_at, id, name, kind, notes, revision, card_revision, card_day, card_build
);

-- It was never filled by a program that landed.
DROP TABLE IF EXISTS sunshine;
