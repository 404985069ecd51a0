-- Pictures of what is asked often at a door: also of what was published before, which may come back.
CREATE TABLE card_files (
  door_id TEXT NOT NULL REFERENCES doors (id),
  file_id TEXT NOT NULL REFERENCES files (id),
  PRIMARY KEY (door_id, file_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX card_files_by_file ON card_files (file_id);

-- How often a card was tapped, and how often whoever did wrote nothing after it.
CREATE TABLE card_counts (
  door_id TEXT NOT NULL REFERENCES doors (id),
  card_id TEXT NOT NULL,
  tapped INTEGER NOT NULL,
  enough INTEGER NOT NULL,
  PRIMARY KEY (door_id, card_id)
) STRICT, WITHOUT ROWID;

-- Those of a moment ago, of which that can still change.
CREATE TABLE card_taps (
  thread_id TEXT NOT NULL,
  seq INTEGER NOT NULL,
  door_id TEXT NOT NULL,
  card_id TEXT NOT NULL,
  at INTEGER NOT NULL,
  PRIMARY KEY (thread_id, seq)
) STRICT, WITHOUT ROWID;
CREATE INDEX card_taps_by_time ON card_taps (at);
