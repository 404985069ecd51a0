-- What the business has to show, to be put into answers. `place` is where its words stand in the index.
CREATE TABLE shelf (
  place INTEGER PRIMARY KEY,
  id TEXT NOT NULL UNIQUE,
  key TEXT NOT NULL UNIQUE,
  kind TEXT NOT NULL,
  name TEXT NOT NULL,
  text TEXT NOT NULL,
  link TEXT NOT NULL,
  sku TEXT NOT NULL,
  price TEXT NOT NULL,
  currency TEXT NOT NULL,
  stock TEXT NOT NULL,
  code TEXT NOT NULL,
  until INTEGER,
  address TEXT NOT NULL,
  hours TEXT NOT NULL,
  starts TEXT NOT NULL,
  minutes INTEGER NOT NULL,
  picture_url TEXT NOT NULL,
  file_id TEXT REFERENCES files (id),
  -- The last moment at which it can be put into an answer; null: there is none.
  over_at INTEGER,
  revision INTEGER NOT NULL,
  changed_at INTEGER NOT NULL,
  used_at INTEGER NOT NULL DEFAULT 0
) STRICT;
CREATE INDEX shelf_by_name ON shelf (name COLLATE NOCASE, id);
CREATE INDEX shelf_by_kind ON shelf (kind, name COLLATE NOCASE, id);
CREATE INDEX shelf_by_use ON shelf (used_at, changed_at);
CREATE INDEX shelf_by_file ON shelf (file_id) WHERE file_id IS NOT NULL;
-- It keeps the words themselves: without them nothing could be taken out of it but at the price of long stalls.
CREATE VIRTUAL TABLE shelf_words USING fts5 (
  text,
  tokenize = 'unicode61 remove_diacritics 2'
);

-- How many there are: counting them takes as long as reading them.
CREATE TABLE shelf_counts (
  id INTEGER PRIMARY KEY CHECK (id = 1),
  count INTEGER NOT NULL
) STRICT;
INSERT INTO shelf_counts VALUES (1, 0);
CREATE TRIGGER shelf_added AFTER INSERT ON shelf BEGIN
  UPDATE shelf_counts SET count = count + 1;
END;
CREATE TRIGGER shelf_dropped AFTER DELETE ON shelf BEGIN
  UPDATE shelf_counts SET count = count - 1;
END;

-- Which pictures of the shelf were said in which thread: whoever writes there may see them, and they stay.
CREATE TABLE shelf_said (
  file_id TEXT NOT NULL REFERENCES files (id),
  thread_id TEXT NOT NULL REFERENCES threads (id),
  PRIMARY KEY (file_id, thread_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX shelf_said_by_thread ON shelf_said (thread_id);

-- What of the shelf goes with a quick reply. What is taken off the shelf and put back goes with it again.
CREATE TABLE quick_reply_shelf (
  reply_id TEXT NOT NULL REFERENCES quick_replies (id) ON DELETE CASCADE,
  place INTEGER NOT NULL,
  shelf_id TEXT NOT NULL,
  PRIMARY KEY (reply_id, place)
) STRICT, WITHOUT ROWID;
CREATE INDEX quick_reply_shelf_by_thing ON quick_reply_shelf (shelf_id);
