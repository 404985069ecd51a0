-- Which entry a message of a network became: its writer may change it there, or take it back.
ALTER TABLE inbounds ADD COLUMN entry_id TEXT;

-- What a network said of a change of a message before it handed over the message; no text: it was taken back.
CREATE TABLE early_changes (
  door_id TEXT NOT NULL REFERENCES doors (id),
  network_id TEXT NOT NULL,
  text TEXT,
  said_at INTEGER NOT NULL,
  at INTEGER NOT NULL,
  PRIMARY KEY (door_id, network_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX early_changes_by_age ON early_changes (at);

-- Who wrote by a door last, and when it was taken away: what was said by it stays.
ALTER TABLE doors ADD COLUMN heard_thread TEXT;
ALTER TABLE doors ADD COLUMN removed_at INTEGER;
-- Up to where its network has been asked, where it does not say all of it by itself.
ALTER TABLE doors ADD COLUMN mark TEXT;

CREATE INDEX deliveries_by_door ON deliveries (door_id, seq);

-- Codes by which a visitor of a website goes on with their conversation at another door.
CREATE TABLE claims (
  code TEXT PRIMARY KEY,
  thread_id TEXT NOT NULL REFERENCES threads (id),
  until INTEGER NOT NULL
) STRICT, WITHOUT ROWID;
CREATE INDEX claims_of_threads ON claims (thread_id, until);
CREATE INDEX claims_by_age ON claims (until);
