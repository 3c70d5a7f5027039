DROP INDEX projects_on_the_shelf;
DROP TABLE cards;
ALTER TABLE lays DROP COLUMN failed;
ALTER TABLE cloths DROP COLUMN name;
ALTER TABLE projects DROP COLUMN name;
