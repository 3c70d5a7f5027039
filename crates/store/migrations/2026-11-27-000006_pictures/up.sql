-- Pictures of cloths, as drawings show them; looks name them by their key.
CREATE TABLE pictures (
    key TEXT NOT NULL PRIMARY KEY,
    jpeg BLOB NOT NULL,
    kept_at BIGINT NOT NULL
);
