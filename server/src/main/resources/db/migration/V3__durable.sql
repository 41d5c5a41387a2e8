-- what tells a run's transaction in the application's database from all others
ALTER TABLE execution ADD COLUMN mark VARCHAR(200);

-- numbers of runs go on, also where runs were deleted
CREATE TABLE run_number (
  run_year INTEGER PRIMARY KEY,
  last_number INTEGER NOT NULL
);
INSERT INTO run_number (run_year, last_number)
  SELECT CAST(LEFT(number, 4) AS INTEGER), MAX(CAST(SUBSTRING(number FROM 6) AS INTEGER))
  FROM execution WHERE number IS NOT NULL GROUP BY LEFT(number, 4);

-- a file that was deleted is still named by the runs that it was brought in by
ALTER TABLE source ADD COLUMN dropped_at TIMESTAMP;
