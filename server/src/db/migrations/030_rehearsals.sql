-- A session that is tried beforehand with a made-up class: a course of its own for a while, of which nothing stays.
-- Its code is the course's that is rehearsed; where it belongs to no rehearsal, a code is once in a term.
ALTER TABLE courses
  ADD COLUMN rehearsal CHAR(12) NOT NULL DEFAULT '',
  ADD UNIQUE KEY term_code (term_id, code, rehearsal),
  DROP KEY term_id;

-- `is_over`: it is to be thrown away. The class is made of the seed again after a restart.
CREATE TABLE rehearsals (
  course_id CHAR(12) PRIMARY KEY,
  session_id CHAR(12) NOT NULL UNIQUE,
  of_session CHAR(12) NOT NULL,
  of_course CHAR(12) NOT NULL,
  person_id CHAR(12) NOT NULL,
  seed INT UNSIGNED NOT NULL,
  size SMALLINT UNSIGNED NOT NULL,
  begun_at BIGINT NOT NULL,
  is_over BOOLEAN NOT NULL DEFAULT FALSE,
  KEY (person_id),
  FOREIGN KEY (course_id) REFERENCES courses (id)
);
