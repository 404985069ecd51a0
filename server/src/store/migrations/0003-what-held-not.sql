-- A link dies with the right of whoever made it; nobody made those that the command on the server prints.
ALTER TABLE one_time_links ADD COLUMN made_by TEXT REFERENCES members (id);
CREATE INDEX one_time_links_of_member ON one_time_links (member_id) WHERE member_id IS NOT NULL;
CREATE INDEX one_time_links_by_maker ON one_time_links (made_by) WHERE made_by IS NOT NULL;

-- Devices on which somebody has signed in before: a stranger's wrong tries do not keep them out.
CREATE TABLE known_devices (
  token_hash TEXT NOT NULL,
  member_id TEXT NOT NULL REFERENCES members (id) ON DELETE CASCADE,
  seen_at INTEGER NOT NULL,
  PRIMARY KEY (token_hash, member_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX known_devices_of_member ON known_devices (member_id, seen_at);

-- Wrong tries at somebody's account, until they have seen that there were some.
CREATE TABLE sign_in_warnings (
  member_id TEXT PRIMARY KEY REFERENCES members (id) ON DELETE CASCADE,
  failures INTEGER NOT NULL,
  last_at INTEGER NOT NULL
) STRICT;

-- Tries were counted by account alone, by which a stranger could keep somebody out.
DELETE FROM sign_in_tries;
CREATE INDEX sign_in_tries_by_age ON sign_in_tries (last_at);

-- What the house has found wrong with its own data, until somebody has read it.
CREATE TABLE findings (
  kind TEXT PRIMARY KEY,
  at INTEGER NOT NULL,
  detail TEXT NOT NULL
) STRICT;

CREATE INDEX conversations_of_door ON conversations (door_id);
CREATE INDEX files_of_conversation ON files (conversation_id) WHERE conversation_id IS NOT NULL;
CREATE INDEX files_of_visitor ON files (visitor_id) WHERE visitor_id IS NOT NULL;
CREATE INDEX sessions_by_age ON sessions (last_seen_at);

-- The cached folds learn of the newest thing that either side said.
UPDATE conversations SET state = json_set(state, '$.zone', '', '$.saidSeq', coalesce((
  SELECT max(seq) FROM entries
  WHERE conversation_id = conversations.id AND kind IN ('visitor-said', 'team-said')
), 0));

-- Room that is taken and given back to see whether the disk takes anything again.
CREATE TABLE probe (
  only_one INTEGER PRIMARY KEY CHECK (only_one = 1),
  bytes BLOB NOT NULL
) STRICT;

-- By which the same id with other bytes is told apart from the same file sent twice.
ALTER TABLE files ADD COLUMN sent_hash TEXT;
