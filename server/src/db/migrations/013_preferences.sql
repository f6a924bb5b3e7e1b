-- How somebody works and reads: keys of their own, how days and hours are written.
ALTER TABLE people ADD COLUMN preferences JSON NOT NULL DEFAULT '{}';
