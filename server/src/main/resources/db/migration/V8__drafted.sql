-- What the last draft proposed, so that fields which nobody has changed can follow the next one.
ALTER TABLE plan ADD COLUMN drafted_json CLOB;
