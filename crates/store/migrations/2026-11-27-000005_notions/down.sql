DROP TABLE notion_entries;
DROP TABLE notions;
