-- Every word that is found in a recording, once: which recordings have the words that are looked for is told by these, and
-- where they stand by the lines. A letter before each word makes short and common ones words of the index too.
CREATE TABLE recording_vocabulary (
  recording_id CHAR(12) NOT NULL PRIMARY KEY,
  words MEDIUMTEXT NOT NULL,
  FULLTEXT (words),
  FOREIGN KEY (recording_id) REFERENCES recordings (id) ON DELETE CASCADE
);
ALTER TABLE recording_words DROP INDEX text;
UPDATE recordings SET words_at = NULL;
