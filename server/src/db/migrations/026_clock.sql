-- By how much the time in force was ahead of the machine's clock when a track began, ms: the relay writes the machine's.
ALTER TABLE recording_tracks ADD COLUMN ahead_ms BIGINT NULL;
