CREATE TABLE people (
  id CHAR(12) PRIMARY KEY,
  name VARCHAR(120) NOT NULL,
  email VARCHAR(254) NOT NULL UNIQUE,
  zone VARCHAR(64) NOT NULL,
  staff BOOLEAN NOT NULL DEFAULT FALSE,
  password_hash VARCHAR(255) NULL
);

CREATE TABLE auth_sessions (
  token_hash CHAR(64) PRIMARY KEY,
  person_id CHAR(12) NOT NULL,
  expires_at BIGINT NOT NULL,
  FOREIGN KEY (person_id) REFERENCES people (id) ON DELETE CASCADE
);

CREATE TABLE terms (
  id CHAR(12) PRIMARY KEY,
  body JSON NOT NULL
);

CREATE TABLE courses (
  id CHAR(12) PRIMARY KEY,
  term_id CHAR(12) NOT NULL,
  code VARCHAR(20) NOT NULL,
  title VARCHAR(120) NOT NULL,
  limits JSON NOT NULL,
  limits_by VARCHAR(120) NULL,
  limits_at BIGINT NULL,
  door JSON NOT NULL,
  recording_plan JSON NULL,
  UNIQUE (term_id, code),
  FOREIGN KEY (term_id) REFERENCES terms (id)
);

CREATE TABLE members (
  id CHAR(12) PRIMARY KEY,
  course_id CHAR(12) NOT NULL,
  person_id CHAR(12) NOT NULL,
  role ENUM('teacher', 'assistant', 'student', 'guest', 'observer') NOT NULL,
  group_name VARCHAR(40) NULL,
  link_code CHAR(16) NOT NULL UNIQUE,
  UNIQUE (course_id, person_id),
  FOREIGN KEY (course_id) REFERENCES courses (id),
  FOREIGN KEY (person_id) REFERENCES people (id)
);

CREATE TABLE series (
  id CHAR(12) PRIMARY KEY,
  course_id CHAR(12) NOT NULL,
  title VARCHAR(90) NOT NULL,
  pattern JSON NOT NULL,
  group_name VARCHAR(40) NULL,
  sequence INT NOT NULL DEFAULT 0,
  FOREIGN KEY (course_id) REFERENCES courses (id)
);

-- One row a session, keyed by series and original local date: a change of the pattern keeps what a session has.
CREATE TABLE sessions (
  id CHAR(12) PRIMARY KEY,
  series_id CHAR(12) NOT NULL,
  course_id CHAR(12) NOT NULL,
  local_date CHAR(10) NOT NULL,
  number INT NOT NULL,
  starts_at BIGINT NOT NULL,
  ends_at BIGINT NOT NULL,
  linger_minutes INT NOT NULL,
  state ENUM('planned', 'moved', 'cancelled', 'live', 'held') NOT NULL DEFAULT 'planned',
  UNIQUE (series_id, local_date),
  KEY (course_id, starts_at),
  KEY (state),
  FOREIGN KEY (series_id) REFERENCES series (id),
  FOREIGN KEY (course_id) REFERENCES courses (id)
);

-- The truth about a room. A command's id stands on the last of its events, so that a repeated command is known.
CREATE TABLE room_events (
  session_id CHAR(12) NOT NULL,
  seq INT NOT NULL,
  at BIGINT NOT NULL,
  command_id CHAR(36) NULL,
  body JSON NOT NULL,
  PRIMARY KEY (session_id, seq),
  UNIQUE (session_id, command_id),
  FOREIGN KEY (session_id) REFERENCES sessions (id)
);

-- Which server holds a room, and when it last said so: a word of the moment, worth nothing once the database has been
-- away, and said every second, so it is kept in memory and costs the events' commits no flush.
CREATE TABLE room_leases (
  session_id CHAR(12) PRIMARY KEY,
  owner CHAR(12) NOT NULL,
  alive_at BIGINT NOT NULL
) ENGINE = MEMORY;

CREATE TABLE recordings (
  id CHAR(12) PRIMARY KEY,
  session_id CHAR(12) NOT NULL UNIQUE,
  state ENUM('running', 'preparing', 'ready', 'failed', 'expired') NOT NULL DEFAULT 'running',
  progress DOUBLE NOT NULL DEFAULT 0,
  length_ms BIGINT NOT NULL DEFAULT 0,
  bytes BIGINT NOT NULL DEFAULT 0,
  has_picture BOOLEAN NOT NULL DEFAULT FALSE,
  file VARCHAR(255) NULL,
  fault TEXT NULL,
  FOREIGN KEY (session_id) REFERENCES sessions (id)
);

CREATE TABLE recording_parts (
  id CHAR(12) PRIMARY KEY,
  recording_id CHAR(12) NOT NULL,
  started_at BIGINT NOT NULL,
  ended_at BIGINT NULL,
  FOREIGN KEY (recording_id) REFERENCES recordings (id)
);

CREATE TABLE recording_tracks (
  part_id CHAR(12) NOT NULL,
  member_id CHAR(12) NOT NULL,
  base VARCHAR(120) NOT NULL,
  PRIMARY KEY (part_id, base),
  FOREIGN KEY (part_id) REFERENCES recording_parts (id)
);

-- Mail and timed work, written in the transaction of their cause, each done once by its key.
CREATE TABLE jobs (
  id BIGINT AUTO_INCREMENT PRIMARY KEY,
  kind ENUM('mail', 'prepare') NOT NULL,
  job_key VARCHAR(120) NOT NULL UNIQUE,
  course_id CHAR(12) NULL,
  member_id CHAR(12) NULL,
  payload JSON NOT NULL,
  state ENUM('queued', 'done', 'failed') NOT NULL DEFAULT 'queued',
  due_at BIGINT NOT NULL,
  attempts INT NOT NULL DEFAULT 0,
  fault TEXT NULL,
  done_at BIGINT NULL,
  KEY (state, due_at),
  KEY (course_id, kind)
);

-- The stand-in mailbox's post. A message reaches an address once, however often it is handed over.
CREATE TABLE standin_mail (
  id BIGINT AUTO_INCREMENT PRIMARY KEY,
  message_id VARCHAR(255) NOT NULL,
  recipient VARCHAR(254) NOT NULL,
  sender VARCHAR(254) NOT NULL,
  subject VARCHAR(255) NOT NULL,
  at BIGINT NOT NULL,
  raw MEDIUMTEXT NOT NULL,
  UNIQUE (message_id, recipient),
  KEY (recipient, id)
);
