-- Pre-cuts of one's own; the key is the name in lower case.
CREATE TABLE own_cuts (
    key TEXT NOT NULL PRIMARY KEY,
    document TEXT NOT NULL
);
