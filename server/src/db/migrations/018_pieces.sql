-- A recording is prepared while its class is on, piece by piece: until when (ms of its part) a piece reaches, how far each
-- of the relay's files was read, who is heard in it, and what pictures were cut.
CREATE TABLE recording_pieces (
  part_id CHAR(12) NOT NULL,
  number INT NOT NULL,
  until_ms BIGINT NOT NULL,
  ended BOOLEAN NOT NULL,
  reached JSON NOT NULL,
  heard JSON NOT NULL,
  slices JSON NOT NULL,
  PRIMARY KEY (part_id, number),
  FOREIGN KEY (part_id) REFERENCES recording_parts (id) ON DELETE CASCADE
);

-- What is seen in a recording beside its sound: each picture from when, for how long (ms of the recording), in a file of its own.
CREATE TABLE recording_pictures (
  recording_id CHAR(12) NOT NULL,
  number INT NOT NULL,
  kind ENUM('camera', 'screen') NOT NULL,
  at_ms BIGINT NOT NULL,
  length_ms BIGINT NOT NULL,
  file VARCHAR(255) NOT NULL,
  PRIMARY KEY (recording_id, number),
  FOREIGN KEY (recording_id) REFERENCES recordings (id) ON DELETE CASCADE
);
INSERT INTO recording_pictures (recording_id, number, kind, at_ms, length_ms, file)
  SELECT id, 0, 'camera', 0, length_ms, file FROM recordings WHERE has_picture AND file IS NOT NULL;

-- Levelled, with its silences (ms) known: until then it can be watched, and its raw files stay.
ALTER TABLE recordings
  ADD COLUMN finished_at BIGINT NULL,
  ADD COLUMN silences JSON NULL,
  DROP COLUMN has_picture;
UPDATE recordings SET finished_at = 0 WHERE state = 'ready';

-- What somebody takes along of a recording: made once it is asked for, and kept for a day.
CREATE TABLE recording_exports (
  id CHAR(12) PRIMARY KEY,
  recording_id CHAR(12) NOT NULL,
  member_id CHAR(12) NOT NULL,
  kind VARCHAR(20) NOT NULL,
  state ENUM('waiting', 'making', 'ready', 'failed', 'cancelled') NOT NULL DEFAULT 'waiting',
  progress DOUBLE NOT NULL DEFAULT 0,
  file VARCHAR(255) NULL,
  bytes BIGINT NOT NULL DEFAULT 0,
  without VARCHAR(255) NULL,
  asked_at BIGINT NOT NULL,
  made_at BIGINT NULL,
  KEY (recording_id, member_id),
  FOREIGN KEY (recording_id) REFERENCES recordings (id) ON DELETE CASCADE,
  FOREIGN KEY (member_id) REFERENCES enrolments (id) ON DELETE CASCADE
);

ALTER TABLE jobs MODIFY kind ENUM('mail', 'prepare', 'piece', 'finish', 'export') NOT NULL;

-- What somebody keeps at a moment of a recording for themselves, or asks those who teach, who may answer it.
CREATE TABLE recording_notes (
  id CHAR(12) PRIMARY KEY,
  recording_id CHAR(12) NOT NULL,
  member_id CHAR(12) NOT NULL,
  position_ms BIGINT NOT NULL,
  kind ENUM('note', 'question') NOT NULL,
  text TEXT NOT NULL,
  written_at BIGINT NOT NULL,
  answer TEXT NULL,
  answered_by CHAR(12) NULL,
  KEY (recording_id, position_ms),
  FOREIGN KEY (recording_id) REFERENCES recordings (id) ON DELETE CASCADE,
  FOREIGN KEY (member_id) REFERENCES enrolments (id) ON DELETE CASCADE
);

-- A link by which anybody may watch a recording, until it ends or is taken back.
CREATE TABLE recording_shares (
  id CHAR(12) PRIMARY KEY,
  recording_id CHAR(12) NOT NULL,
  code VARCHAR(40) NOT NULL UNIQUE,
  made_by CHAR(12) NOT NULL,
  made_at BIGINT NOT NULL,
  until_at BIGINT NOT NULL,
  opened INT NOT NULL DEFAULT 0,
  KEY (recording_id),
  FOREIGN KEY (recording_id) REFERENCES recordings (id) ON DELETE CASCADE
);
