-- What was taken along is known by its hash (SHA-256): whoever saved it can see that it came whole.
ALTER TABLE recording_exports ADD COLUMN sha256 CHAR(64) NULL;
