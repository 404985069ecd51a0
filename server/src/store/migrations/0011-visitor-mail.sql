-- By which address a visitor answers by mail, and who they are by that.
CREATE TABLE visitor_addresses (
  id TEXT PRIMARY KEY,
  thread_id TEXT NOT NULL,
  address TEXT NOT NULL,
  expires_at INTEGER NOT NULL,
  UNIQUE (thread_id, address)
) STRICT, WITHOUT ROWID;
CREATE INDEX visitor_addresses_by_age ON visitor_addresses (expires_at);

-- The mails of a conversation with a visitor, in order: ours with how far they bring answers, and theirs.
CREATE TABLE visitor_mails (
  thread_id TEXT NOT NULL,
  at INTEGER NOT NULL,
  message_id TEXT NOT NULL,
  up_to INTEGER,
  PRIMARY KEY (thread_id, at, message_id)
) STRICT, WITHOUT ROWID;

-- Addresses to which nothing more is to go.
CREATE TABLE mail_stopped (
  address TEXT PRIMARY KEY,
  at INTEGER NOT NULL
) STRICT, WITHOUT ROWID;
