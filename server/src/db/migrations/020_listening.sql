-- The address of somebody's recordings of a course, for a program that plays them; it dies with the link that opened it.
CREATE TABLE listening (
  member_id CHAR(12) PRIMARY KEY,
  code VARCHAR(20) NOT NULL UNIQUE,
  link_code VARCHAR(20) NULL,
  made_at BIGINT NOT NULL,
  FOREIGN KEY (member_id) REFERENCES enrolments (id) ON DELETE CASCADE
);

ALTER TABLE jobs MODIFY kind ENUM('mail', 'prepare', 'piece', 'finish', 'export', 'cut', 'listen') NOT NULL;
