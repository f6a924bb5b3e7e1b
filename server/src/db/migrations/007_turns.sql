-- A request that makes something carries an id and happens once: its answer is stored with what it did.
CREATE TABLE requests (
  id CHAR(64) PRIMARY KEY,
  at BIGINT NOT NULL,
  answer JSON NULL,
  KEY (at)
);

-- Letters that wait to be composed are found without touching those that are being sent.
ALTER TABLE jobs
  ADD COLUMN waiting BOOLEAN AS (kind = 'mail' AND state = 'queued' AND letter IS NULL) PERSISTENT,
  ADD KEY (member_id, waiting);

-- Addresses are compared as they are written, small letters: é is not e.
ALTER TABLE people MODIFY COLUMN email VARCHAR(254) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL;
