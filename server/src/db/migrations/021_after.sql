-- How much somebody took part in a session: how long the relay heard them (ms), what they wrote, how often a hand was up.
CREATE TABLE parts_taken (
  session_id CHAR(12) NOT NULL,
  member_id CHAR(12) NOT NULL,
  spoken_ms BIGINT NOT NULL DEFAULT 0,
  written INT NOT NULL DEFAULT 0,
  hands INT NOT NULL DEFAULT 0,
  PRIMARY KEY (session_id, member_id),
  KEY (member_id),
  FOREIGN KEY (session_id) REFERENCES sessions (id) ON DELETE CASCADE,
  FOREIGN KEY (member_id) REFERENCES enrolments (id) ON DELETE CASCADE
);

-- What a class thought of a session. Who said something, and what was said, are kept apart: nothing joins them.
CREATE TABLE thoughts (
  id BIGINT AUTO_INCREMENT PRIMARY KEY,
  session_id CHAR(12) NOT NULL,
  stars TINYINT NOT NULL,
  words VARCHAR(300) NOT NULL,
  KEY (session_id),
  FOREIGN KEY (session_id) REFERENCES sessions (id) ON DELETE CASCADE
);
CREATE TABLE thoughts_given (
  session_id CHAR(12) NOT NULL,
  member_id CHAR(12) NOT NULL,
  PRIMARY KEY (session_id, member_id),
  FOREIGN KEY (session_id) REFERENCES sessions (id) ON DELETE CASCADE,
  FOREIGN KEY (member_id) REFERENCES enrolments (id) ON DELETE CASCADE
);
