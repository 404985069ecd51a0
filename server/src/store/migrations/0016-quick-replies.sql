-- Answers that are stored to be given again: the team's (no member), or somebody's own.
CREATE TABLE quick_replies (
  id TEXT PRIMARY KEY,
  member_id TEXT REFERENCES members (id),
  code TEXT NOT NULL,
  title TEXT NOT NULL,
  text TEXT NOT NULL,
  group_name TEXT NOT NULL,
  language TEXT NOT NULL,
  revision INTEGER NOT NULL,
  changed_at INTEGER NOT NULL,
  used_count INTEGER NOT NULL DEFAULT 0,
  used_at INTEGER
) STRICT, WITHOUT ROWID;
CREATE UNIQUE INDEX quick_replies_by_code ON quick_replies (coalesce(member_id, ''), code)
  WHERE code <> '';

-- Pictures that go with them.
CREATE TABLE quick_reply_files (
  reply_id TEXT NOT NULL REFERENCES quick_replies (id) ON DELETE CASCADE,
  place INTEGER NOT NULL,
  file_id TEXT NOT NULL REFERENCES files (id),
  PRIMARY KEY (reply_id, place)
) STRICT, WITHOUT ROWID;
CREATE INDEX quick_reply_files_by_file ON quick_reply_files (file_id);

-- Words of the business that no dictionary has.
CREATE TABLE own_words (word TEXT PRIMARY KEY) STRICT, WITHOUT ROWID;
