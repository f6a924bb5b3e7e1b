-- Every event says in which version it was stored: older ones are brought up to date when they are read. Rooms write while
-- plans are edited, so their rows hold no lock on the session's: whoever takes a session away takes its events away.
ALTER TABLE room_events
  ADD COLUMN version SMALLINT NOT NULL DEFAULT 1,
  DROP FOREIGN KEY room_events_ibfk_1;

-- Which app servers there are, where they are reached, and when each last said that it lives: a word of the moment, worth
-- nothing once the database has been away, so it is kept in memory and costs the events' commits no flush.
CREATE TABLE servers (
  id CHAR(12) PRIMARY KEY,
  address VARCHAR(190) NOT NULL,
  alive_at DATETIME(3) NOT NULL
) ENGINE = MEMORY;

-- Which server a room belongs to. With each new owner the epoch grows by one; an event is stored under its owner's epoch only.
DROP TABLE room_leases;
CREATE TABLE room_leases (
  session_id CHAR(12) PRIMARY KEY,
  owner CHAR(12) NOT NULL,
  epoch INT NOT NULL
);

-- Who came to a session that was held, written when it ended.
CREATE TABLE roll_lines (
  session_id CHAR(12) NOT NULL,
  member_id CHAR(12) NOT NULL,
  role ENUM('teacher', 'assistant', 'student', 'guest', 'observer') NOT NULL,
  arrived_at BIGINT NULL,
  left_at BIGINT NULL,
  minutes INT NOT NULL,
  late BOOLEAN NOT NULL,
  left_early BOOLEAN NOT NULL,
  stays JSON NOT NULL,
  PRIMARY KEY (session_id, member_id),
  KEY (member_id)
);

-- What is written together in a place of a room: updates in order, now and then made one.
CREATE TABLE room_documents (
  session_id CHAR(12) NOT NULL,
  place VARCHAR(40) NOT NULL,
  name VARCHAR(40) NOT NULL,
  nr BIGINT AUTO_INCREMENT,
  member_id CHAR(12) NULL,
  body MEDIUMBLOB NOT NULL,
  PRIMARY KEY (session_id, place, name, nr),
  KEY (nr)
);

-- What a course, a series or a session says of limits, door, recording and run sheet: each value with who set it, and when.
ALTER TABLE courses ADD COLUMN settings JSON NOT NULL DEFAULT '{}';
ALTER TABLE series ADD COLUMN settings JSON NOT NULL DEFAULT '{}';
ALTER TABLE sessions ADD COLUMN settings JSON NOT NULL DEFAULT '{}';

CREATE TEMPORARY TABLE setters AS
  SELECT c.id, c.limits_at AS at,
         (SELECT m.id FROM enrolments m JOIN people p ON p.id = m.person_id
           WHERE m.course_id = c.id AND COALESCE(p.preferred_name, p.name) = c.limits_by LIMIT 1) AS member
    FROM courses c;
-- A course that never saved limits or door has the college's.
UPDATE courses c JOIN setters w ON w.id = c.id SET c.settings = JSON_SET(c.settings, '$.limits', JSON_OBJECT(
    'speak', JSON_OBJECT('value', JSON_VALUE(c.limits, '$.speak'), 'by', w.member, 'at', w.at),
    'camera', JSON_OBJECT('value', JSON_VALUE(c.limits, '$.camera'), 'by', w.member, 'at', w.at),
    'present', JSON_OBJECT('value', JSON_VALUE(c.limits, '$.present'), 'by', w.member, 'at', w.at),
    'draw', JSON_OBJECT('value', JSON_VALUE(c.limits, '$.draw'), 'by', w.member, 'at', w.at),
    'writeToClass', JSON_OBJECT('value', JSON_VALUE(c.limits, '$.writeToClass'), 'by', w.member, 'at', w.at),
    'writeToTeachers', JSON_OBJECT('value', JSON_VALUE(c.limits, '$.writeToTeachers'), 'by', w.member, 'at', w.at),
    'writeToStudents', JSON_OBJECT('value', JSON_VALUE(c.limits, '$.writeToStudents'), 'by', w.member, 'at', w.at)))
  WHERE c.limits_by IS NOT NULL;
UPDATE courses SET settings = JSON_SET(settings, '$.door', JSON_OBJECT(
    'opensMinutesBefore', JSON_COMPACT(JSON_OBJECT('value', JSON_EXTRACT(door, '$.opensMinutesBefore'), 'by', NULL, 'at', NULL)),
    'teacherFirst', JSON_COMPACT(JSON_OBJECT('value', JSON_EXTRACT(door, '$.teacherFirst'), 'by', NULL, 'at', NULL))))
  WHERE JSON_VALUE(door, '$.opensMinutesBefore') <> '15' OR JSON_VALUE(door, '$.teacherFirst') NOT IN ('true', '1');
UPDATE courses SET settings = JSON_SET(settings, '$.recording', JSON_OBJECT(
    'automatic', JSON_OBJECT('value', JSON_EXTRACT(recording_plan, '$.automatic'), 'by', NULL, 'at', NULL),
    'keepUntil', JSON_OBJECT('value', JSON_VALUE(recording_plan, '$.keepUntil'), 'by', NULL, 'at', NULL),
    'studentsWatch', JSON_OBJECT('value', JSON_EXTRACT(recording_plan, '$.studentsWatch'), 'by', NULL, 'at', NULL),
    'studentsDownload', JSON_OBJECT('value', JSON_EXTRACT(recording_plan, '$.studentsDownload'), 'by', NULL, 'at', NULL)))
  WHERE recording_plan IS NOT NULL;
DROP TEMPORARY TABLE setters;
ALTER TABLE courses DROP COLUMN limits, DROP COLUMN limits_by, DROP COLUMN limits_at, DROP COLUMN door, DROP COLUMN recording_plan;
