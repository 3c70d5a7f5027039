-- Names are found without reading documents; they are those of the state the history stands at.
ALTER TABLE projects ADD COLUMN name TEXT NOT NULL DEFAULT '';
UPDATE projects SET name = COALESCE((
    SELECT CASE WHEN json_valid(document) THEN json_extract(document, '$.name') END
    FROM states WHERE project_id = projects.id AND position = projects.position
), '');
ALTER TABLE cloths ADD COLUMN name TEXT NOT NULL DEFAULT '';
UPDATE cloths SET name = COALESCE(CASE WHEN json_valid(document) THEN json_extract(document, '$.name') END, '');

-- The sentence that says why there is no lay for a job; its document is empty then.
ALTER TABLE lays ADD COLUMN failed TEXT;

-- The shelf's card of a project, good for one revision and one version of the program.
CREATE TABLE cards (
    project_id TEXT PRIMARY KEY NOT NULL REFERENCES projects (id) ON DELETE CASCADE,
    revision BIGINT NOT NULL,
    program TEXT NOT NULL,
    document TEXT NOT NULL
);

CREATE INDEX projects_on_the_shelf ON projects (deleted, changed_at DESC, id);

-- 'BFTA': what file this is, for whoever opens it.
PRAGMA application_id = 1111905345;
