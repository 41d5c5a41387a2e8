-- how often it was begun, since the server ended before it had done anything
ALTER TABLE execution ADD COLUMN begun INT DEFAULT 1 NOT NULL;
