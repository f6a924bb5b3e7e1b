-- An answer is to one of the sessions of a date, says when it was given, whether from the address it is an answer of, and
-- whether what it is an answer to was changed since.
ALTER TABLE replies
  ADD COLUMN take INT NOT NULL DEFAULT 0 AFTER local_date,
  ADD COLUMN stamp BIGINT NOT NULL DEFAULT 0 AFTER sequence,
  ADD COLUMN verified BOOLEAN NOT NULL DEFAULT TRUE,
  ADD COLUMN outdated BOOLEAN NOT NULL DEFAULT FALSE,
  DROP PRIMARY KEY,
  ADD PRIMARY KEY (member_id, series_id, local_date, take);

-- What only somebody's own letters and feeds say of their entries, so that nobody answers for another; those who are on a
-- list already keep the entries they have. And the letters that somebody does not want.
ALTER TABLE enrolments
  ADD COLUMN calendar_secret CHAR(12) NULL,
  ADD COLUMN quiet SET('reminder', 'notice') NOT NULL DEFAULT '';
CREATE OR REPLACE VIEW members AS
  SELECT m.id, m.course_id, m.person_id, m.role, m.group_name, m.link_code, m.link_at, m.left_at, m.extra, m.scope,
         m.capabilities, m.link_until, m.last_seen, m.pin, m.calendar_secret, m.quiet, COALESCE(m.own_name, p.name) AS name,
         COALESCE(p.preferred_name, m.own_name, p.name) AS called,
         IF(p.zone_own, p.zone, COALESCE(m.own_zone, p.zone)) AS zone
    FROM enrolments m JOIN people p ON p.id = m.person_id WHERE m.left_at IS NULL;
