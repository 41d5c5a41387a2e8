-- a run in batches: how many stand and the rows that they took in, and what is being committed
ALTER TABLE execution ADD COLUMN batches INTEGER DEFAULT 0 NOT NULL;
ALTER TABLE execution ADD COLUMN batch_rows BIGINT DEFAULT 0 NOT NULL;
ALTER TABLE execution ADD COLUMN next_rows BIGINT;
ALTER TABLE execution ADD COLUMN next_report_json CLOB;

-- a chunk counts once its batch stands; open ones only until the next batch stands
ALTER TABLE ledger_chunk ADD COLUMN batch INTEGER DEFAULT 1 NOT NULL;
ALTER TABLE ledger_chunk ADD COLUMN is_open BOOLEAN DEFAULT FALSE NOT NULL;
ALTER TABLE ledger_chunk DROP PRIMARY KEY;
ALTER TABLE ledger_chunk ADD PRIMARY KEY (execution_id, destination, number, batch);
