-- How often a greeting was seen before somebody wrote, and how often they answered it.
CREATE TABLE greeting_counts (
  door_id TEXT NOT NULL REFERENCES doors (id),
  greeting_id TEXT NOT NULL,
  seen INTEGER NOT NULL,
  answered INTEGER NOT NULL,
  PRIMARY KEY (door_id, greeting_id)
) STRICT, WITHOUT ROWID;
