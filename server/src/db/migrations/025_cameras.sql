-- Whose a picture of a recording is, where it is a student's: it goes with them, and is not for everybody.
ALTER TABLE recording_pictures ADD COLUMN member_id CHAR(12) NULL, ADD KEY (member_id);
