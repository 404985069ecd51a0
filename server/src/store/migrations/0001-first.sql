CREATE TABLE business (
  only_one INTEGER PRIMARY KEY CHECK (only_one = 1),
  name TEXT NOT NULL,
  zone TEXT NOT NULL,
  created_at INTEGER NOT NULL
) STRICT;

CREATE TABLE members (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL,
  email TEXT NOT NULL UNIQUE,
  password_hash TEXT NOT NULL,
  role TEXT NOT NULL CHECK (role IN ('owner', 'helper')),
  created_at INTEGER NOT NULL
) STRICT;

-- Only a hash of the cookie is kept: a copied database signs nobody in.
CREATE TABLE sessions (
  token_hash TEXT PRIMARY KEY,
  member_id TEXT NOT NULL REFERENCES members (id) ON DELETE CASCADE,
  created_at INTEGER NOT NULL,
  last_seen_at INTEGER NOT NULL
) STRICT;
CREATE INDEX sessions_of_member ON sessions (member_id);

CREATE TABLE sign_in_tries (
  subject TEXT PRIMARY KEY,
  failures INTEGER NOT NULL,
  last_at INTEGER NOT NULL,
  not_before INTEGER NOT NULL
) STRICT;

CREATE TABLE doors (
  id TEXT PRIMARY KEY,
  public_id TEXT NOT NULL UNIQUE,
  name TEXT NOT NULL,
  sites TEXT NOT NULL,
  created_at INTEGER NOT NULL
) STRICT;

CREATE TABLE lamp (
  only_one INTEGER PRIMARY KEY CHECK (only_one = 1),
  state TEXT NOT NULL CHECK (state IN ('lit', 'back-soon', 'dark')),
  until INTEGER,
  set_at INTEGER NOT NULL
) STRICT;

CREATE TABLE marks (
  name TEXT PRIMARY KEY,
  seq INTEGER NOT NULL
) STRICT;

CREATE TABLE visitors (
  id TEXT PRIMARY KEY,
  door_id TEXT NOT NULL REFERENCES doors (id),
  token_hash TEXT NOT NULL UNIQUE,
  created_at INTEGER NOT NULL
) STRICT;

-- A cache of the fold of the entries, written in the same transaction as they are.
CREATE TABLE conversations (
  id TEXT PRIMARY KEY,
  door_id TEXT NOT NULL REFERENCES doors (id),
  visitor_id TEXT NOT NULL UNIQUE REFERENCES visitors (id),
  line_group TEXT NOT NULL,
  place INTEGER NOT NULL,
  put_by_until INTEGER,
  is_here INTEGER NOT NULL,
  state TEXT NOT NULL
) STRICT;
CREATE INDEX conversations_in_line ON conversations (line_group, place, id);
CREATE INDEX conversations_put_by ON conversations (put_by_until) WHERE put_by_until IS NOT NULL;
CREATE INDEX conversations_here ON conversations (id) WHERE is_here = 1;

-- Counted as rows change: counting on reading would grow with the business's whole past.
CREATE TABLE line_counts (
  line_group TEXT PRIMARY KEY,
  conversations INTEGER NOT NULL
) STRICT;
CREATE TRIGGER conversations_counted AFTER INSERT ON conversations BEGIN
  INSERT INTO line_counts VALUES (NEW.line_group, 1)
    ON CONFLICT DO UPDATE SET conversations = conversations + 1;
END;
CREATE TRIGGER conversations_recounted AFTER UPDATE OF line_group ON conversations
WHEN OLD.line_group <> NEW.line_group BEGIN
  UPDATE line_counts SET conversations = conversations - 1 WHERE line_group = OLD.line_group;
  INSERT INTO line_counts VALUES (NEW.line_group, 1)
    ON CONFLICT DO UPDATE SET conversations = conversations + 1;
END;

-- Append-only. AUTOINCREMENT: a seq is never given twice, whatever happens to the newest row.
CREATE TABLE entries (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  conversation_id TEXT NOT NULL REFERENCES conversations (id),
  id TEXT NOT NULL,
  kind TEXT NOT NULL,
  at INTEGER NOT NULL,
  on_roll INTEGER NOT NULL,
  body TEXT NOT NULL,
  UNIQUE (conversation_id, id)
) STRICT;
CREATE INDEX entries_on_roll ON entries (conversation_id, seq) WHERE on_roll = 1;
CREATE TRIGGER entries_stay BEFORE UPDATE ON entries BEGIN
  SELECT RAISE(ABORT, 'entries are append-only');
END;

CREATE TABLE files (
  id TEXT PRIMARY KEY,
  visitor_id TEXT REFERENCES visitors (id),
  member_id TEXT REFERENCES members (id),
  conversation_id TEXT REFERENCES conversations (id),
  name TEXT NOT NULL,
  type TEXT NOT NULL,
  size_bytes INTEGER NOT NULL,
  width INTEGER,
  height INTEGER,
  created_at INTEGER NOT NULL,
  CHECK ((visitor_id IS NULL) <> (member_id IS NULL))
) STRICT;
CREATE INDEX files_unsent ON files (created_at) WHERE conversation_id IS NULL;

CREATE TABLE file_bytes (
  file_id TEXT PRIMARY KEY REFERENCES files (id) ON DELETE CASCADE,
  whole BLOB NOT NULL,
  thumbnail BLOB
) STRICT;

-- rowid is the entry's seq; the text itself stays in entries.
CREATE VIRTUAL TABLE words USING fts5 (
  text, content = '', contentless_delete = 1, tokenize = 'unicode61 remove_diacritics 2'
);

-- How many texts have each word: search needs it for its weights, and to complete a half-typed word.
CREATE TABLE vocabulary (
  word TEXT PRIMARY KEY,
  texts INTEGER NOT NULL
) STRICT, WITHOUT ROWID;

CREATE TABLE search_totals (
  only_one INTEGER PRIMARY KEY CHECK (only_one = 1),
  texts INTEGER NOT NULL,
  words INTEGER NOT NULL
) STRICT;
INSERT INTO search_totals VALUES (1, 0, 0);
