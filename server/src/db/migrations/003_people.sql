-- Who ever was on a class list stays here, for the roll; `members` are those who are on it now.
RENAME TABLE members TO enrolments;
ALTER TABLE enrolments
  MODIFY COLUMN link_code VARCHAR(20) NOT NULL,
  ADD COLUMN left_at BIGINT NULL,
  ADD COLUMN extra JSON NOT NULL DEFAULT '{}',
  ADD COLUMN scope JSON NULL,
  ADD COLUMN capabilities JSON NULL,
  ADD COLUMN link_until BIGINT NULL,
  ADD COLUMN last_seen BIGINT NULL;
CREATE VIEW members AS
  SELECT id, course_id, person_id, role, group_name, link_code, link_at, left_at, extra, scope, capabilities, link_until,
         last_seen FROM enrolments WHERE left_at IS NULL;

-- A person may choose how they are called, and say themselves where they are.
ALTER TABLE people
  ADD COLUMN preferred_name VARCHAR(120) NULL,
  ADD COLUMN zone_own BOOLEAN NOT NULL DEFAULT FALSE;

ALTER TABLE courses
  ADD COLUMN reminders JSON NOT NULL DEFAULT '[]',
  ADD COLUMN invitation JSON NULL,
  ADD COLUMN class_link VARCHAR(20) NULL UNIQUE,
  ADD COLUMN class_passcode VARCHAR(40) NULL;
ALTER TABLE feeds MODIFY COLUMN code VARCHAR(20) NOT NULL;
ALTER TABLE series ADD COLUMN listed BOOLEAN NOT NULL DEFAULT FALSE;

-- A letter is composed once, with what its calendar entries then hold, and sent as composed however often that takes.
ALTER TABLE jobs
  MODIFY COLUMN state ENUM('queued', 'done', 'failed', 'void') NOT NULL DEFAULT 'queued',
  ADD COLUMN topic VARCHAR(20) NULL,
  ADD COLUMN subject VARCHAR(255) NULL,
  ADD COLUMN letter JSON NULL,
  ADD COLUMN message_id VARCHAR(190) NULL,
  ADD COLUMN bounced_at BIGINT NULL,
  ADD COLUMN bounce VARCHAR(500) NULL,
  ADD KEY (message_id),
  ADD KEY (member_id, kind);
UPDATE jobs SET topic = JSON_VALUE(payload, '$.letter') WHERE kind = 'mail';
UPDATE jobs SET topic = 'update' WHERE topic = 'change';

-- What each person's calendar holds of a series, by the messages they were sent.
CREATE TABLE calendar_copies (
  member_id CHAR(12) NOT NULL,
  entry_key VARCHAR(40) NOT NULL,
  body JSON NOT NULL,
  PRIMARY KEY (member_id, entry_key)
);

-- Answers to invitations: to a whole series, or to the session of one original date.
CREATE TABLE replies (
  member_id CHAR(12) NOT NULL,
  series_id CHAR(12) NOT NULL,
  local_date CHAR(10) NOT NULL DEFAULT '',
  answer ENUM('accepted', 'tentative', 'declined') NOT NULL,
  sequence INT NOT NULL,
  at BIGINT NOT NULL,
  PRIMARY KEY (member_id, series_id, local_date)
);

ALTER TABLE standin_mail ADD COLUMN fetched_at BIGINT NULL;

-- Letters that came in and were read, by the mailbox's own id for them.
CREATE TABLE inbox_seen (
  uidl VARCHAR(120) PRIMARY KEY,
  at BIGINT NOT NULL,
  outcome VARCHAR(255) NOT NULL
);

-- What was done to a class list, by whom and when, with the rows before and after it.
CREATE TABLE list_changes (
  id CHAR(12) PRIMARY KEY,
  course_id CHAR(12) NOT NULL,
  place BIGINT AUTO_INCREMENT UNIQUE,
  at BIGINT NOT NULL,
  made_by VARCHAR(120) NOT NULL,
  words VARCHAR(255) NOT NULL,
  body JSON NOT NULL,
  undone_at BIGINT NULL,
  KEY (course_id, place)
);

CREATE TABLE notices (
  id CHAR(12) PRIMARY KEY,
  course_id CHAR(12) NOT NULL,
  title VARCHAR(120) NOT NULL,
  body JSON NOT NULL,
  visible_from BIGINT NOT NULL,
  visible_until BIGINT NULL,
  pinned BOOLEAN NOT NULL DEFAULT FALSE,
  mailed_at BIGINT NULL,
  made_by VARCHAR(120) NOT NULL,
  at BIGINT NOT NULL,
  KEY (course_id, visible_from)
);

CREATE TABLE materials (
  id CHAR(12) PRIMARY KEY,
  course_id CHAR(12) NOT NULL,
  session_id CHAR(12) NULL,
  name VARCHAR(160) NOT NULL,
  url VARCHAR(1000) NULL,
  hash CHAR(64) NULL,
  type VARCHAR(100) NULL,
  bytes BIGINT NOT NULL DEFAULT 0,
  made_by VARCHAR(120) NOT NULL,
  at BIGINT NOT NULL,
  removed_at BIGINT NULL,
  KEY (course_id)
);
