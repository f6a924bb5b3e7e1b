-- A part of a recording is of a place of its room: the class, or a table of it.
ALTER TABLE recording_parts ADD COLUMN place VARCHAR(40) NOT NULL DEFAULT 'class' AFTER recording_id;

-- What was said at a table, as it is heard afterwards; made when that is said of its recording.
ALTER TABLE recordings ADD COLUMN tables_at BIGINT NULL;
CREATE TABLE recording_tables (
  recording_id CHAR(12) NOT NULL,
  place VARCHAR(40) NOT NULL,
  length_ms BIGINT NOT NULL,
  file VARCHAR(255) NOT NULL,
  PRIMARY KEY (recording_id, place),
  FOREIGN KEY (recording_id) REFERENCES recordings (id) ON DELETE CASCADE
);
