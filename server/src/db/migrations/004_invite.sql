-- Each session's invitation may leave a while before it; a course may be reached by telephone, each person by a PIN.
ALTER TABLE courses
  ADD COLUMN invite_before JSON NULL,
  ADD COLUMN telephone VARCHAR(40) NULL;
-- A session may be listed, or not, otherwise than its series.
ALTER TABLE sessions ADD COLUMN listed BOOLEAN NULL;
ALTER TABLE enrolments ADD COLUMN pin CHAR(8) NULL UNIQUE;
CREATE OR REPLACE VIEW members AS
  SELECT id, course_id, person_id, role, group_name, link_code, link_at, left_at, extra, scope, capabilities, link_until,
         last_seen, pin FROM enrolments WHERE left_at IS NULL;
