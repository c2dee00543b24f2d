-- Phones that were paired with this program: of each its token's hash, never the token.
CREATE TABLE phone (
    id INTEGER PRIMARY KEY,
    name TEXT NOT NULL,
    token_hash TEXT NOT NULL UNIQUE,
    paired_at TEXT NOT NULL,
    seen_at TEXT NOT NULL
);
