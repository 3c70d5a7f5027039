DROP TABLE lays;
DROP TABLE cloths;
DROP TABLE states;
DROP TABLE projects;
