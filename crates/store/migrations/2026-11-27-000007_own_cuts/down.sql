DROP TABLE own_cuts;
