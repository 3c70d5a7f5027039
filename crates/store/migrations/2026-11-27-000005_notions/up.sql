-- Zips, rings, webbing and the like that are owned. What there is of one follows from its entries, which are only added.
CREATE TABLE notions (
    id TEXT NOT NULL PRIMARY KEY,
    document TEXT NOT NULL
);
CREATE TABLE notion_entries (
    id INTEGER NOT NULL PRIMARY KEY AUTOINCREMENT,
    notion_id TEXT NOT NULL REFERENCES notions (id),
    -- The bag it is about, if it is about one; a bag that is thrown away stays named here.
    project_id TEXT,
    document TEXT NOT NULL
);
CREATE INDEX notion_entries_by_notion ON notion_entries (notion_id, id);
CREATE INDEX notion_entries_by_project ON notion_entries (project_id);
