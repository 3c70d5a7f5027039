ALTER TABLE cloths DROP COLUMN put_away_at;
