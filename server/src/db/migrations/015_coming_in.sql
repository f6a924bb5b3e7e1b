-- Wrong PINs, by the number that was dialled and the caller's (empty where it is withheld): they are limited by both.
CREATE TABLE wrong_pins (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  line VARCHAR(40) NOT NULL,
  caller VARCHAR(40) NOT NULL,
  at BIGINT NOT NULL,
  KEY by_line (line, at)
);

-- How somebody came to be in the course who is neither on its list nor invited: by the class link, with an account of the
-- college or without. Who is always let in. What a person is called in this course, as a teacher corrected it in class, or
-- they themselves did; and the pronouns that a person gave.
ALTER TABLE enrolments
  ADD COLUMN came VARCHAR(10) NULL,
  ADD COLUMN always_in BOOLEAN NOT NULL DEFAULT FALSE,
  ADD COLUMN called_here VARCHAR(120) NULL,
  ADD COLUMN called_by CHAR(12) NULL;
ALTER TABLE people ADD COLUMN pronouns VARCHAR(30) NULL;
UPDATE enrolments m JOIN people p ON p.id = m.person_id SET m.came = 'visitor' WHERE p.email LIKE 'visitor-%';
CREATE OR REPLACE VIEW members AS
  SELECT m.id, m.course_id, m.person_id, m.role, m.group_name, m.link_code, m.link_at, m.left_at, m.extra, m.scope,
         m.capabilities, m.link_until, m.last_seen, m.pin, m.calendar_secret, m.quiet, m.came, m.always_in, m.called_here,
         p.pronouns, COALESCE(m.own_name, p.name) AS name,
         COALESCE(m.called_here, p.preferred_name, m.own_name, p.name) AS called,
         IF(p.zone_own, p.zone, COALESCE(m.own_zone, p.zone)) AS zone
    FROM enrolments m JOIN people p ON p.id = m.person_id WHERE m.left_at IS NULL;

-- Since when those who teach a session have been told that nobody has rung in.
ALTER TABLE sessions ADD COLUMN missed_at BIGINT NULL;

-- The segments of run sheets as they were held: planned minutes, and when each began and ended.
CREATE TABLE held_segments (
  session_id CHAR(12) NOT NULL,
  nr SMALLINT UNSIGNED NOT NULL,
  title VARCHAR(90) NOT NULL,
  minutes SMALLINT UNSIGNED NOT NULL,
  from_at BIGINT NOT NULL,
  until_at BIGINT NOT NULL,
  PRIMARY KEY (session_id, nr),
  FOREIGN KEY (session_id) REFERENCES sessions (id) ON DELETE CASCADE
);
