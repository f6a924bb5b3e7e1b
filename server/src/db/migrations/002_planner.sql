ALTER TABLE members ADD COLUMN link_at BIGINT NULL;
ALTER TABLE courses ADD COLUMN young_pupils BOOLEAN NOT NULL DEFAULT FALSE;

-- A room without dates has no pattern. What was planned before plans could be drafts is published.
ALTER TABLE series
  MODIFY COLUMN pattern JSON NULL,
  ADD COLUMN kind ENUM('class', 'group', 'office', 'open', 'capture') NOT NULL DEFAULT 'class',
  ADD COLUMN expected INT NULL,
  ADD COLUMN leads JSON NOT NULL DEFAULT '[]',
  ADD COLUMN published_at BIGINT NULL;
UPDATE series SET published_at = 0;

-- `take` tells sessions of one series and date apart: a second one added by hand, or a standing room opened again.
ALTER TABLE sessions
  ADD COLUMN title VARCHAR(90) NULL,
  ADD COLUMN own SET('time', 'length', 'title', 'added') NOT NULL DEFAULT '',
  ADD COLUMN replaces CHAR(12) NULL,
  ADD COLUMN record BOOLEAN NULL,
  ADD COLUMN posted_at BIGINT NULL,
  ADD COLUMN take INT NOT NULL DEFAULT 0,
  ADD UNIQUE KEY by_date (series_id, local_date, take),
  DROP KEY series_id,
  ADD KEY times (starts_at);
UPDATE sessions SET own = 'time' WHERE state = 'moved';

CREATE TABLE bell_times (
  id CHAR(12) PRIMARY KEY,
  name VARCHAR(80) NOT NULL UNIQUE,
  periods JSON NOT NULL
);

-- What was done to a plan, by whom and when, with the rows before and after it: the history, and the way back.
CREATE TABLE plan_changes (
  id CHAR(12) PRIMARY KEY,
  course_id CHAR(12) NOT NULL,
  place BIGINT AUTO_INCREMENT UNIQUE,
  at BIGINT NOT NULL,
  made_by VARCHAR(120) NOT NULL,
  words VARCHAR(255) NOT NULL,
  body JSON NOT NULL,
  told INT NOT NULL,
  undone_at BIGINT NULL,
  KEY (course_id, place),
  FOREIGN KEY (course_id) REFERENCES courses (id)
);

CREATE TABLE templates (
  id CHAR(12) PRIMARY KEY,
  person_id CHAR(12) NOT NULL,
  name VARCHAR(80) NOT NULL,
  body JSON NOT NULL,
  at BIGINT NOT NULL,
  UNIQUE (person_id, name),
  FOREIGN KEY (person_id) REFERENCES people (id)
);

-- What a person is typing and has not saved, by the form it belongs to.
CREATE TABLE drafts (
  person_id CHAR(12) NOT NULL,
  draft_key VARCHAR(80) NOT NULL,
  body JSON NOT NULL,
  at BIGINT NOT NULL,
  PRIMARY KEY (person_id, draft_key),
  FOREIGN KEY (person_id) REFERENCES people (id)
);

-- Secret addresses of calendars: of all a person's courses, or of one.
CREATE TABLE feeds (
  code CHAR(16) PRIMARY KEY,
  person_id CHAR(12) NOT NULL,
  course_id CHAR(12) NOT NULL DEFAULT '',
  made_at BIGINT NOT NULL,
  UNIQUE (person_id, course_id),
  FOREIGN KEY (person_id) REFERENCES people (id)
);
