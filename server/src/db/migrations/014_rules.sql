-- Named sets of limits of a teacher's own; the college's ship with the product.
CREATE TABLE rule_sheets (
  id CHAR(12) PRIMARY KEY,
  person_id CHAR(12) NOT NULL,
  name VARCHAR(60) NOT NULL,
  about VARCHAR(120) NOT NULL DEFAULT '',
  limits JSON NOT NULL,
  at BIGINT NOT NULL,
  UNIQUE (person_id, name),
  FOREIGN KEY (person_id) REFERENCES people (id)
);

-- What one person may, or may not, whatever the class may.
CREATE TABLE exceptions (
  id CHAR(12) PRIMARY KEY,
  course_id CHAR(12) NOT NULL,
  member_id CHAR(12) NOT NULL,
  capability VARCHAR(20) NOT NULL,
  state VARCHAR(10) NOT NULL,
  until BIGINT NULL,
  reason VARCHAR(300) NOT NULL DEFAULT '',
  made_by CHAR(12) NULL,
  at BIGINT NOT NULL,
  ended_at BIGINT NULL,
  KEY (course_id, ended_at),
  KEY (member_id),
  FOREIGN KEY (member_id) REFERENCES enrolments (id)
);

-- What was changed of a course's limits, sheets and run sheets: settings before and after.
CREATE TABLE rule_changes (
  id CHAR(12) PRIMARY KEY,
  course_id CHAR(12) NOT NULL,
  place BIGINT AUTO_INCREMENT UNIQUE,
  at BIGINT NOT NULL,
  made_by VARCHAR(120) NOT NULL,
  words VARCHAR(255) NOT NULL,
  undoing BOOLEAN NOT NULL DEFAULT FALSE,
  body JSON NOT NULL,
  undone_at BIGINT NULL,
  barrier BOOLEAN NOT NULL DEFAULT FALSE,
  KEY (course_id, place)
);
