-- Doors of any kind: what a kind needs to know stands in settings, what nobody may read in secret (sealed with a
-- key that is not in this file).
CREATE TABLE doors_anew (
  id TEXT PRIMARY KEY,
  public_id TEXT NOT NULL UNIQUE,
  kind TEXT NOT NULL,
  name TEXT NOT NULL,
  settings TEXT NOT NULL,
  secret BLOB,
  member_ids TEXT,
  closed_at INTEGER,
  heard_at INTEGER,
  failing_since INTEGER,
  failing_why TEXT,
  created_at INTEGER NOT NULL
) STRICT;
INSERT INTO doors_anew
  SELECT id, public_id, 'website', name, json_object('sites', json(sites)), NULL, member_ids, closed_at,
    NULL, NULL, NULL, created_at
  FROM doors;
-- What is being worked on of how a website door is dressed.
CREATE TABLE drafts (
  door_id TEXT PRIMARY KEY REFERENCES doors (id),
  draft TEXT,
  revision INTEGER NOT NULL,
  changed_by TEXT REFERENCES members (id)
) STRICT;
INSERT INTO drafts SELECT id, draft, revision, changed_by FROM doors WHERE revision > 0;
DROP TABLE doors;
ALTER TABLE doors_anew RENAME TO doors;

-- What a network has handed over, by its own id: it may hand it over twice.
CREATE TABLE inbounds (
  door_id TEXT NOT NULL REFERENCES doors (id),
  network_id TEXT NOT NULL,
  thread_id TEXT NOT NULL REFERENCES threads (id),
  PRIMARY KEY (door_id, network_id)
) STRICT, WITHOUT ROWID;

-- How far each entry has come that a network carries.
CREATE TABLE deliveries (
  seq INTEGER PRIMARY KEY REFERENCES entries (seq),
  door_id TEXT NOT NULL REFERENCES doors (id),
  network_id TEXT,
  step TEXT NOT NULL CHECK (step IN ('waiting', 'sent', 'arrived', 'read', 'failed')),
  why TEXT
) STRICT;
CREATE UNIQUE INDEX deliveries_by_network ON deliveries (door_id, network_id)
  WHERE network_id IS NOT NULL;

-- What a network said of a message before it had said which one it was.
CREATE TABLE early_receipts (
  door_id TEXT NOT NULL REFERENCES doors (id),
  network_id TEXT NOT NULL,
  step TEXT NOT NULL,
  why TEXT,
  at INTEGER NOT NULL,
  PRIMARY KEY (door_id, network_id, step)
) STRICT, WITHOUT ROWID;
CREATE INDEX early_receipts_by_age ON early_receipts (at);
