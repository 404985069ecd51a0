-- Up to which entry everything was counted and learned that no acknowledgement waits for; see inbox/afterwards.ts.
CREATE TABLE afterwards (
  only_one INTEGER PRIMARY KEY CHECK (only_one = 1),
  seq INTEGER NOT NULL
) STRICT;
INSERT INTO afterwards SELECT 1, coalesce(max(seq), 0) FROM entries;
-- Threads in which the first hello is the last thing that was said.
CREATE TABLE hello_threads (
  thread_id TEXT PRIMARY KEY
) STRICT, WITHOUT ROWID;
