-- what may be done through a connection, and how; null if nothing was said
ALTER TABLE connection ADD COLUMN settings_json CLOB;
