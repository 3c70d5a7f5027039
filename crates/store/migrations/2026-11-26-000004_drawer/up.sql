-- When a cloth was put away, in milliseconds since 1970; nothing while it is in the cupboard.
ALTER TABLE cloths ADD COLUMN put_away_at BIGINT;
