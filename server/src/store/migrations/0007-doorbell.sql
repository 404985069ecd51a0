-- What only the house itself needs to know and nobody may read, sealed as the doors' secrets are.
CREATE TABLE house_secrets (
  name TEXT PRIMARY KEY,
  sealed BLOB NOT NULL
) STRICT;

-- How each of the team wants to be rung; nobody has a row until they have said anything.
CREATE TABLE doorbells (
  member_id TEXT PRIMARY KEY REFERENCES members (id) ON DELETE CASCADE,
  settings TEXT NOT NULL
) STRICT;

-- What happens while nobody looks, for all of the team.
CREATE TABLE ring_on (
  only_one INTEGER PRIMARY KEY CHECK (only_one = 1),
  rules TEXT NOT NULL
) STRICT;

-- Where a push goes. It ends with the session of the device: whoever is signed out is not rung.
CREATE TABLE bell_devices (
  id TEXT PRIMARY KEY,
  member_id TEXT NOT NULL REFERENCES members (id) ON DELETE CASCADE,
  session_hash TEXT NOT NULL REFERENCES sessions (token_hash) ON DELETE CASCADE,
  endpoint TEXT NOT NULL UNIQUE,
  p256dh TEXT NOT NULL,
  auth TEXT NOT NULL,
  name TEXT NOT NULL,
  is_muted INTEGER NOT NULL,
  added_at INTEGER NOT NULL,
  rung_at INTEGER,
  failed_at INTEGER,
  why TEXT
) STRICT;
CREATE INDEX bell_devices_of_member ON bell_devices (member_id);
CREATE INDEX bell_devices_of_session ON bell_devices (session_hash);

-- Ringing for a conversation, from its first ring until somebody looks.
CREATE TABLE rounds (
  conversation_id TEXT PRIMARY KEY,
  began_at INTEGER NOT NULL,
  -- The newest message that was rung for.
  seq INTEGER NOT NULL,
  -- Ids of those of the team who were rung, as JSON.
  rung TEXT NOT NULL
) STRICT;

-- On which devices an alert of a conversation may be shown, to be taken back.
CREATE TABLE alerts (
  conversation_id TEXT NOT NULL,
  device_id TEXT NOT NULL REFERENCES bell_devices (id) ON DELETE CASCADE,
  PRIMARY KEY (conversation_id, device_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX alerts_of_device ON alerts (device_id);
