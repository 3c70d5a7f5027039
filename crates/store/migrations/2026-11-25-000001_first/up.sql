-- A project and where its undo history stands.
CREATE TABLE projects (
    id TEXT PRIMARY KEY NOT NULL,
    revision BIGINT NOT NULL,
    position BIGINT NOT NULL,
    changed_at BIGINT NOT NULL,
    deleted BOOLEAN NOT NULL DEFAULT FALSE
);

-- Every state of a project that can be gone back to; `label` says what led to it.
CREATE TABLE states (
    project_id TEXT NOT NULL REFERENCES projects (id) ON DELETE CASCADE,
    position BIGINT NOT NULL,
    label TEXT NOT NULL,
    document TEXT NOT NULL,
    PRIMARY KEY (project_id, position)
);

-- The cupboard: cloths known to the house, to be taken into any project.
CREATE TABLE cloths (
    id TEXT PRIMARY KEY NOT NULL,
    document TEXT NOT NULL
);

-- The best lay found for a job; the key is made from the job.
CREATE TABLE lays (
    project_id TEXT NOT NULL REFERENCES projects (id) ON DELETE CASCADE,
    job_key TEXT NOT NULL,
    document TEXT NOT NULL,
    PRIMARY KEY (project_id, job_key)
);
