-- the run that an undo takes back
ALTER TABLE execution ADD COLUMN undoes_id BIGINT REFERENCES execution (id);
CREATE INDEX execution_undoes ON execution (undoes_id);

ALTER TABLE ledger_chunk ADD COLUMN removed INTEGER DEFAULT 0 NOT NULL;
