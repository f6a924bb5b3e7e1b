-- Files that go with what is said in class: kept by what is in them. Who may have one is whoever may have read the message.
CREATE TABLE attached (
  id CHAR(12) PRIMARY KEY,
  session_id CHAR(12) NOT NULL,
  member_id CHAR(12) NOT NULL,
  name VARCHAR(160) NOT NULL,
  hash CHAR(64) NOT NULL,
  type VARCHAR(120) NOT NULL,
  bytes BIGINT NOT NULL,
  at BIGINT NOT NULL,
  KEY (session_id),
  KEY (member_id),
  FOREIGN KEY (member_id) REFERENCES enrolments (id) ON DELETE CASCADE
);
