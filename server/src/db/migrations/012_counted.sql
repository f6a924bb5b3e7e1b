-- What a college counts and asks of every course, read from the index alone.
ALTER TABLE enrolments ADD KEY counted (course_id, role, left_at);
ALTER TABLE sessions ADD KEY ahead (course_id, state, ends_at);
