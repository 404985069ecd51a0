-- Since when the light of a door is not lit.
CREATE TABLE lights_out (
  door_id TEXT PRIMARY KEY,
  since INTEGER NOT NULL
) STRICT, WITHOUT ROWID;

-- A cache of the fold of what the rolls say is owed, written in the same transaction as they are.
CREATE TABLE follow_ups (
  id TEXT PRIMARY KEY,
  conversation_id TEXT NOT NULL,
  why TEXT NOT NULL,
  what TEXT NOT NULL,
  due_at INTEGER NOT NULL,
  remind_at INTEGER,
  whose TEXT,
  made_at INTEGER NOT NULL,
  done_at INTEGER,
  done_by TEXT
) STRICT;
CREATE INDEX follow_ups_due ON follow_ups (due_at, id) WHERE done_at IS NULL;
CREATE INDEX follow_ups_done ON follow_ups (done_at DESC, id) WHERE done_at IS NOT NULL;
CREATE INDEX follow_ups_open ON follow_ups (conversation_id) WHERE done_at IS NULL;

-- Who left without an answer, and without a way to be reached.
CREATE TABLE missed (
  conversation_id TEXT PRIMARY KEY,
  at INTEGER NOT NULL
) STRICT, WITHOUT ROWID;
CREATE INDEX missed_by_age ON missed (at);

-- By which address a calendar program reads somebody's follow-ups; only a hash of its secret is kept.
CREATE TABLE feeds (
  secret_hash TEXT PRIMARY KEY,
  member_id TEXT NOT NULL UNIQUE REFERENCES members (id),
  made_at INTEGER NOT NULL
) STRICT, WITHOUT ROWID;
