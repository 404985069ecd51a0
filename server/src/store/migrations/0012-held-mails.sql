-- What else stood in a mail beside its writer's words, by the entry that these became.
CREATE TABLE rests (
  thread_id TEXT NOT NULL,
  entry_id TEXT NOT NULL,
  text TEXT NOT NULL,
  PRIMARY KEY (thread_id, entry_id)
) STRICT, WITHOUT ROWID;

-- Mails of which the team is asked whether they are of whoever we wrote to, whole, by the entry that asks.
CREATE TABLE held_mails (
  id TEXT PRIMARY KEY,
  thread_id TEXT NOT NULL,
  address TEXT NOT NULL,
  at INTEGER NOT NULL,
  -- As somebody has said; null: nobody has.
  is_theirs INTEGER,
  bytes BLOB NOT NULL
) STRICT;
CREATE INDEX held_mails_by_age ON held_mails (at);
CREATE INDEX held_mails_of_thread ON held_mails (thread_id);

-- From which other addresses mail is somebody's too, and from which it is not, as the team has said.
CREATE TABLE their_addresses (
  thread_id TEXT NOT NULL,
  address TEXT NOT NULL,
  is_theirs INTEGER NOT NULL,
  PRIMARY KEY (thread_id, address)
) STRICT, WITHOUT ROWID;
