ALTER TABLE states DROP COLUMN cut_plan;
DROP TABLE cut_plans;
