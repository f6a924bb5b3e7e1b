-- What the college itself says of limits and door, for every course: one row. Its changes stand among the rule changes,
-- under the name of no course.
CREATE TABLE college (
  one BOOLEAN NOT NULL DEFAULT TRUE PRIMARY KEY CHECK (one),
  settings JSON NOT NULL
);
INSERT INTO college (settings) VALUES ('{}');

-- What a sheet says of writing around the class.
ALTER TABLE rule_sheets ADD COLUMN writing JSON NOT NULL DEFAULT '{}';

-- What is written on a session's page (which may be planned away, and come back by undo), before its door opens and after its class: to the class, to those who teach, to one.
CREATE TABLE written (
  id CHAR(12) PRIMARY KEY,
  session_id CHAR(12) NOT NULL,
  at BIGINT NOT NULL,
  member_id CHAR(12) NOT NULL,
  addressee VARCHAR(10) NOT NULL,
  to_member CHAR(12) NULL,
  text TEXT NOT NULL,
  KEY (session_id, at),
  KEY (member_id),
  FOREIGN KEY (member_id) REFERENCES enrolments (id) ON DELETE CASCADE
);

-- Who was there by telephone, and who too short; what a teacher says in place of what the rules make of it.
ALTER TABLE roll_lines
  ADD COLUMN short BOOLEAN NOT NULL DEFAULT FALSE,
  ADD COLUMN telephone BOOLEAN NOT NULL DEFAULT FALSE;
CREATE TABLE roll_corrections (
  session_id CHAR(12) NOT NULL,
  member_id CHAR(12) NOT NULL,
  mark VARCHAR(10) NOT NULL,
  reason VARCHAR(300) NOT NULL,
  made_by VARCHAR(120) NOT NULL,
  at BIGINT NOT NULL,
  PRIMARY KEY (session_id, member_id),
  KEY (member_id)
);

-- What was said, written, drawn as text and called a chapter in a recording, by its place in it: to be searched. Writing to
-- the class alone; whose it was, by member.
CREATE TABLE recording_words (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  recording_id CHAR(12) NOT NULL,
  position_ms INT UNSIGNED NOT NULL,
  kind VARCHAR(10) NOT NULL,
  member_id CHAR(12) NULL,
  text TEXT NOT NULL,
  KEY (recording_id),
  KEY (member_id),
  FULLTEXT (text),
  FOREIGN KEY (recording_id) REFERENCES recordings (id) ON DELETE CASCADE
);
ALTER TABLE recordings ADD COLUMN words_at BIGINT NULL;

-- What somebody watched of a recording: where they are, and how often each ten seconds of it.
CREATE TABLE watched (
  recording_id CHAR(12) NOT NULL,
  member_id CHAR(12) NOT NULL,
  position_ms INT UNSIGNED NOT NULL,
  stretches JSON NOT NULL,
  at BIGINT NOT NULL,
  PRIMARY KEY (recording_id, member_id),
  KEY (member_id),
  FOREIGN KEY (recording_id) REFERENCES recordings (id) ON DELETE CASCADE
);

-- Letters that a class one missed can be watched: one may do without them.
ALTER TABLE enrolments MODIFY quiet SET('reminder', 'notice', 'recording') NOT NULL DEFAULT '';

-- A recording's own title; and since when it is taken away: for some weeks it can be taken back.
ALTER TABLE recordings
  ADD COLUMN title VARCHAR(120) NULL,
  ADD COLUMN taken_at BIGINT NULL;
