-- Irradiance on the plane of some panels, which takes a second to work out: kept for each site.
CREATE TABLE sunshine (
    site     TEXT PRIMARY KEY,
    clear    BLOB NOT NULL,
    cloudy   BLOB NOT NULL
);
