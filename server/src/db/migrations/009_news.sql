-- Which letters carry the news of which change: told is who has it, not who was meant to.
CREATE TABLE news (
  change_id CHAR(12) NOT NULL,
  job_id BIGINT NOT NULL,
  PRIMARY KEY (change_id, job_id),
  FOREIGN KEY (change_id) REFERENCES plan_changes (id) ON DELETE CASCADE,
  FOREIGN KEY (job_id) REFERENCES jobs (id) ON DELETE CASCADE
);
INSERT INTO news (change_id, job_id)
  SELECT c.id, j.id FROM plan_changes c JOIN jobs j ON j.course_id = c.course_id AND j.job_key LIKE CONCAT('update/', c.id, '/%');
ALTER TABLE plan_changes DROP COLUMN told;
