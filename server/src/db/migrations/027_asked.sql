-- How many questions somebody answered in a session.
ALTER TABLE parts_taken ADD COLUMN answers INT NOT NULL DEFAULT 0;

-- How often somebody was asked by lot in a session: whoever was asked least comes first, all term.
CREATE TABLE asked_by_lot (
  session_id CHAR(12) NOT NULL,
  member_id CHAR(12) NOT NULL,
  times INT NOT NULL,
  PRIMARY KEY (session_id, member_id),
  KEY (member_id),
  FOREIGN KEY (session_id) REFERENCES sessions (id) ON DELETE CASCADE,
  FOREIGN KEY (member_id) REFERENCES enrolments (id) ON DELETE CASCADE
);
