-- Why a session is cancelled. A course that is put away; and what of a history lies before everything was laid anew, and
-- cannot be taken back.
ALTER TABLE sessions ADD COLUMN reason VARCHAR(200) NULL;
ALTER TABLE courses ADD COLUMN archived_at BIGINT NULL;
ALTER TABLE plan_changes ADD COLUMN barrier BOOLEAN NOT NULL DEFAULT FALSE;
ALTER TABLE list_changes ADD COLUMN barrier BOOLEAN NOT NULL DEFAULT FALSE;
