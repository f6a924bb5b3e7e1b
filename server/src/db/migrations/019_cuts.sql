-- How a recording is cut: marks over what was recorded, which stays as it is, and what was made by them. Times in ms.
CREATE TABLE recording_cuts (
  recording_id CHAR(12) NOT NULL,
  number INT NOT NULL,
  marks JSON NOT NULL,
  nobody JSON NOT NULL,
  made_by CHAR(12) NOT NULL,
  made_at BIGINT NOT NULL,
  state ENUM('preparing', 'ready', 'failed') NOT NULL DEFAULT 'preparing',
  progress DOUBLE NOT NULL DEFAULT 0,
  file VARCHAR(255) NULL,
  bytes BIGINT NOT NULL DEFAULT 0,
  pictures JSON NULL,
  PRIMARY KEY (recording_id, number),
  FOREIGN KEY (recording_id) REFERENCES recordings (id) ON DELETE CASCADE
);

-- The cut that is in force, by number; and chapters as somebody wrote them.
ALTER TABLE recordings
  ADD COLUMN cut INT NULL,
  ADD COLUMN chapters JSON NULL;

ALTER TABLE jobs MODIFY kind ENUM('mail', 'prepare', 'piece', 'finish', 'export', 'cut') NOT NULL;
