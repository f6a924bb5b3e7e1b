-- Questions that are prepared before class.
CREATE TABLE prepared_questions (
  id CHAR(12) PRIMARY KEY,
  course_id CHAR(12) NOT NULL,
  nr BIGINT AUTO_INCREMENT UNIQUE,
  body JSON NOT NULL,
  part VARCHAR(90) NOT NULL,
  seconds INT NULL,
  asked_at BIGINT NULL,
  made_by VARCHAR(120) NOT NULL,
  KEY (course_id, nr),
  FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE
);
