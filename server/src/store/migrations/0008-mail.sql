-- How mail goes out and comes in; what nobody may read of it stands sealed in house_secrets.
CREATE TABLE mail_settings (
  only_one INTEGER PRIMARY KEY CHECK (only_one = 1),
  settings TEXT NOT NULL
) STRICT;

-- Addresses by which somebody of the team answers a conversation. What stands here lets nobody answer: the
-- address carries a signature besides.
CREATE TABLE reply_addresses (
  id TEXT PRIMARY KEY,
  conversation_id TEXT NOT NULL,
  member_id TEXT NOT NULL REFERENCES members (id) ON DELETE CASCADE,
  expires_at INTEGER NOT NULL
) STRICT, WITHOUT ROWID;
CREATE INDEX reply_addresses_by_age ON reply_addresses (expires_at);
CREATE INDEX reply_addresses_of_member ON reply_addresses (member_id);

-- Mail that has been looked at, by what it is known by: it may be handed over twice.
CREATE TABLE mails_seen (
  id TEXT PRIMARY KEY,
  at INTEGER NOT NULL
) STRICT, WITHOUT ROWID;
CREATE INDEX mails_seen_by_age ON mails_seen (at);
