-- By what it is found that two people may be one: what they are called, and on which device they write.
CREATE TABLE names (
  thread_id TEXT PRIMARY KEY REFERENCES threads (id),
  key TEXT NOT NULL
) STRICT, WITHOUT ROWID;
CREATE INDEX names_by_key ON names (key);

CREATE TABLE devices (
  thread_id TEXT PRIMARY KEY REFERENCES threads (id),
  key TEXT NOT NULL
) STRICT, WITHOUT ROWID;
CREATE INDEX devices_by_key ON devices (key);

-- Of which two conversations somebody has said that they are two people's.
CREATE TABLE not_same (
  one TEXT NOT NULL,
  other TEXT NOT NULL,
  at INTEGER NOT NULL,
  PRIMARY KEY (one, other)
) STRICT, WITHOUT ROWID;
