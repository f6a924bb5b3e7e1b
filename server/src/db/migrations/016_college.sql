-- What the college itself says of limits and door, for every course: one row. Its changes stand among the rule changes,
-- under the name of no course.
CREATE TABLE college (
  one BOOLEAN NOT NULL DEFAULT TRUE PRIMARY KEY CHECK (one),
  settings JSON NOT NULL
);
INSERT INTO college (settings) VALUES ('{}');
