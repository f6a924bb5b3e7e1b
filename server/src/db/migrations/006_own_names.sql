-- A person belongs to the college; a course keeps its own name for them, and where it takes them to be. What somebody says
-- of themselves goes before both.
ALTER TABLE enrolments ADD COLUMN own_name VARCHAR(120) NULL, ADD COLUMN own_zone VARCHAR(64) NULL;
CREATE OR REPLACE VIEW members AS
  SELECT m.id, m.course_id, m.person_id, m.role, m.group_name, m.link_code, m.link_at, m.left_at, m.extra, m.scope,
         m.capabilities, m.link_until, m.last_seen, m.pin, COALESCE(m.own_name, p.name) AS name,
         COALESCE(p.preferred_name, m.own_name, p.name) AS called,
         IF(p.zone_own, p.zone, COALESCE(m.own_zone, p.zone)) AS zone
    FROM enrolments m JOIN people p ON p.id = m.person_id WHERE m.left_at IS NULL;

-- A letter that could not be dealt with is tried a few times, then set aside and shown.
CREATE TABLE inbox_faults (
  uidl VARCHAR(120) PRIMARY KEY,
  tries INT NOT NULL,
  at BIGINT NOT NULL,
  fault VARCHAR(500) NOT NULL,
  set_aside BOOLEAN NOT NULL DEFAULT FALSE,
  raw MEDIUMTEXT NULL
);

-- A calendar's address dies with the link that opened it.
ALTER TABLE feeds ADD COLUMN link_code VARCHAR(20) NULL;
UPDATE feeds f JOIN enrolments m ON m.person_id = f.person_id AND m.course_id = f.course_id
  JOIN people p ON p.id = f.person_id AND p.password_hash IS NULL SET f.link_code = m.link_code;
