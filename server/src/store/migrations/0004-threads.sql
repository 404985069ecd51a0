-- A conversation is one person's roll. What they write belongs to threads: one writer at one door, called as
-- the door itself calls them. A conversation is made with its first thread and has that one's id; until
-- somebody says something there is none. (Files of strangers may come in before their first message.)
CREATE TABLE threads (
  id TEXT PRIMARY KEY,
  door_id TEXT NOT NULL REFERENCES doors (id),
  address TEXT NOT NULL,
  conversation_id TEXT REFERENCES conversations (id),
  created_at INTEGER NOT NULL,
  UNIQUE (door_id, address)
) STRICT;
CREATE INDEX threads_of_conversation ON threads (conversation_id) WHERE conversation_id IS NOT NULL;
CREATE INDEX threads_by_address ON threads (address);
INSERT INTO threads
  SELECT coalesce(c.id, v.id), v.door_id, v.token_hash, c.id, v.created_at
  FROM visitors v LEFT JOIN conversations c ON c.visitor_id = v.id;

-- In which conversations a thread that was ever moved has stood: from a seq, to before another one.
CREATE TABLE stays (
  thread_id TEXT NOT NULL REFERENCES threads (id),
  conversation_id TEXT NOT NULL REFERENCES conversations (id),
  from_seq INTEGER NOT NULL,
  to_seq INTEGER,
  PRIMARY KEY (thread_id, from_seq)
) STRICT, WITHOUT ROWID;
CREATE INDEX stays_in_conversation ON stays (conversation_id);

-- How a person can be reached. Said in a guest book, or proven by a message from there. Those of before are
-- filled in as conversations are folded anew.
CREATE TABLE ways (
  thread_id TEXT NOT NULL REFERENCES threads (id),
  kind TEXT NOT NULL,
  -- In the one form in which two of them can be compared.
  key TEXT NOT NULL,
  address TEXT NOT NULL,
  source TEXT NOT NULL CHECK (source IN ('said', 'proven')),
  at INTEGER NOT NULL,
  PRIMARY KEY (thread_id, kind, key)
) STRICT, WITHOUT ROWID;
CREATE INDEX ways_by_key ON ways (kind, key);

CREATE TABLE files_anew (
  id TEXT PRIMARY KEY,
  -- Who sent it: a visitor, or a member.
  from_thread TEXT REFERENCES threads (id),
  from_member TEXT REFERENCES members (id),
  -- Where it was said; nowhere yet.
  in_thread TEXT REFERENCES threads (id),
  name TEXT NOT NULL,
  type TEXT NOT NULL,
  size_bytes INTEGER NOT NULL,
  width INTEGER,
  height INTEGER,
  created_at INTEGER NOT NULL,
  -- By which the same id with other bytes is told apart from the same file sent twice.
  sent_hash TEXT,
  CHECK ((from_thread IS NULL) <> (from_member IS NULL))
) STRICT;
INSERT INTO files_anew
  SELECT f.id, coalesce(c.id, f.visitor_id), f.member_id, f.conversation_id, f.name, f.type, f.size_bytes,
    f.width, f.height, f.created_at, f.sent_hash
  FROM files f LEFT JOIN conversations c ON c.visitor_id = f.visitor_id;
DROP TABLE files;
ALTER TABLE files_anew RENAME TO files;
CREATE INDEX files_unsent ON files (created_at) WHERE in_thread IS NULL;
CREATE INDEX files_in_thread ON files (in_thread) WHERE in_thread IS NOT NULL;
CREATE INDEX files_from_thread ON files (from_thread) WHERE from_thread IS NOT NULL;

-- Append-only. Each in the shape in which it was written; it is brought up to date on reading. Those without
-- a thread concern the conversation as a whole. AUTOINCREMENT: a seq is never given twice.
CREATE TABLE entries_anew (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  conversation_id TEXT NOT NULL REFERENCES conversations (id),
  thread_id TEXT REFERENCES threads (id),
  id TEXT NOT NULL,
  kind TEXT NOT NULL,
  at INTEGER NOT NULL,
  on_roll INTEGER NOT NULL,
  shape INTEGER NOT NULL,
  body TEXT NOT NULL
) STRICT;
INSERT INTO entries_anew
  SELECT seq, conversation_id,
    CASE WHEN kind IN ('team-read', 'wrapped-up', 'put-by', 'taken-back', 'returned')
      THEN NULL ELSE conversation_id END,
    id, kind, at, on_roll, 1, body
  FROM entries ORDER BY seq;
-- Also of rows that are not there any more: no seq is given a second time. (There is no such row before the
-- first entry.)
UPDATE sqlite_sequence
  SET seq = max(seq, (SELECT seq FROM sqlite_sequence WHERE name = 'entries'))
  WHERE name = 'entries_anew' AND EXISTS (SELECT 1 FROM sqlite_sequence WHERE name = 'entries');
DROP TABLE entries;
ALTER TABLE entries_anew RENAME TO entries;
CREATE UNIQUE INDEX entries_once_in_thread ON entries (thread_id, id) WHERE thread_id IS NOT NULL;
CREATE UNIQUE INDEX entries_once_of_whole ON entries (conversation_id, id) WHERE thread_id IS NULL;
CREATE INDEX entries_of_thread ON entries (thread_id, seq) WHERE thread_id IS NOT NULL AND on_roll = 1;
CREATE INDEX entries_of_whole ON entries (conversation_id, seq) WHERE thread_id IS NULL;
CREATE TRIGGER entries_stay BEFORE UPDATE ON entries BEGIN
  SELECT RAISE(ABORT, 'entries are append-only');
END;

-- The cached folds, one a thread. Those of version 0 are folded anew by whoever needs them, or by and by.
CREATE TABLE conversations_anew (
  id TEXT PRIMARY KEY,
  -- Where it stands in the line; null: its threads stand in another conversation now.
  line_group TEXT,
  place INTEGER,
  put_by_until INTEGER,
  is_here INTEGER NOT NULL,
  fold INTEGER NOT NULL,
  threads TEXT NOT NULL
) STRICT;
INSERT INTO conversations_anew
  SELECT id, line_group, place, put_by_until, is_here, 0,
    json_array(json_set(state, '$.threadId', id, '$.doorId', door_id))
  FROM conversations;
DROP TABLE conversations;
ALTER TABLE conversations_anew RENAME TO conversations;
CREATE INDEX conversations_put_by ON conversations (put_by_until) WHERE put_by_until IS NOT NULL;
CREATE INDEX conversations_here ON conversations (id) WHERE is_here = 1;
CREATE INDEX conversations_by_fold ON conversations (fold);
DROP TABLE visitors;

-- The line, as each view of it shows it: everything, or a part. Counted as rows change.
CREATE TABLE line_places (
  view TEXT NOT NULL,
  line_group TEXT NOT NULL,
  place INTEGER NOT NULL,
  conversation_id TEXT NOT NULL REFERENCES conversations (id),
  PRIMARY KEY (view, line_group, place, conversation_id)
) STRICT, WITHOUT ROWID;
DROP TABLE line_counts;
CREATE TABLE line_counts (
  view TEXT NOT NULL,
  line_group TEXT NOT NULL,
  conversations INTEGER NOT NULL,
  PRIMARY KEY (view, line_group)
) STRICT, WITHOUT ROWID;
CREATE TRIGGER line_places_counted AFTER INSERT ON line_places BEGIN
  INSERT INTO line_counts VALUES (NEW.view, NEW.line_group, 1)
    ON CONFLICT DO UPDATE SET conversations = conversations + 1;
END;
CREATE TRIGGER line_places_uncounted AFTER DELETE ON line_places BEGIN
  UPDATE line_counts SET conversations = conversations - 1
  WHERE view = OLD.view AND line_group = OLD.line_group;
END;
CREATE TRIGGER line_places_recounted AFTER UPDATE OF line_group ON line_places
WHEN OLD.line_group <> NEW.line_group BEGIN
  UPDATE line_counts SET conversations = conversations - 1
  WHERE view = OLD.view AND line_group = OLD.line_group;
  INSERT INTO line_counts VALUES (NEW.view, NEW.line_group, 1)
    ON CONFLICT DO UPDATE SET conversations = conversations + 1;
END;
INSERT INTO line_places SELECT 'all', line_group, place, id FROM conversations;
