-- The plan that is being cut, kept from the first cut on; many states of a project share one.
CREATE TABLE cut_plans (
    id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL,
    project_id TEXT NOT NULL REFERENCES projects (id) ON DELETE CASCADE,
    document TEXT NOT NULL
);
CREATE INDEX cut_plans_of_a_project ON cut_plans (project_id);

ALTER TABLE states ADD COLUMN cut_plan BIGINT;
