-- The moment whose picture stands for a recording, ms of what was recorded; null where nobody chose one.
ALTER TABLE recordings ADD COLUMN still_ms BIGINT NULL;
