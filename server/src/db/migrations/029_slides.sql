-- What those who teach have noted to a page of a deck, for themselves. A deck is known by what is in its file.
CREATE TABLE page_notes (
  course_id CHAR(12) NOT NULL,
  deck CHAR(64) NOT NULL,
  page SMALLINT UNSIGNED NOT NULL,
  text TEXT NOT NULL,
  PRIMARY KEY (course_id, deck, page),
  FOREIGN KEY (course_id) REFERENCES courses (id) ON DELETE CASCADE
);

-- A file that those who teach alone have: shown page by page in class, and given to the students when they wish.
ALTER TABLE materials ADD COLUMN for_teachers BOOLEAN NOT NULL DEFAULT FALSE;
