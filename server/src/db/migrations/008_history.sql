-- Which entries of a history took another one back: words are only words, and may begin as a series' title does.
ALTER TABLE plan_changes ADD COLUMN undoing BOOLEAN NOT NULL DEFAULT FALSE AFTER words;
ALTER TABLE list_changes ADD COLUMN undoing BOOLEAN NOT NULL DEFAULT FALSE AFTER words;
UPDATE plan_changes SET undoing = TRUE WHERE words LIKE 'Undone: %';
UPDATE list_changes SET undoing = TRUE WHERE words LIKE 'Undone: %';
