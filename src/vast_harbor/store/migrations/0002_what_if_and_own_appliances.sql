-- While something is tried beside the plan, the plan itself is kept here, with the last edit before the trial.
ALTER TABLE rig ADD COLUMN base TEXT CHECK (base IS NULL OR json_valid(base));
ALTER TABLE rig ADD COLUMN base_edit INTEGER;

-- Appliances that the owner entered once and wants to find again in every rig.
CREATE TABLE own_appliance (
    id    INTEGER PRIMARY KEY,
    name  TEXT NOT NULL UNIQUE,
    load  TEXT NOT NULL CHECK (json_valid(load))
);
