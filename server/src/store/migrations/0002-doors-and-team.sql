-- Faces of the team and the business's own picture; what stands in an address is the hash of the bytes.
CREATE TABLE pictures (
  id TEXT PRIMARY KEY,
  bytes BLOB NOT NULL,
  created_at INTEGER NOT NULL
) STRICT;

ALTER TABLE business ADD COLUMN country TEXT NOT NULL DEFAULT '';
ALTER TABLE business ADD COLUMN address TEXT NOT NULL DEFAULT '';
ALTER TABLE business ADD COLUMN picture_id TEXT REFERENCES pictures (id);
ALTER TABLE business ADD COLUMN picture_shape TEXT NOT NULL DEFAULT 'square'
  CHECK (picture_shape IN ('round', 'square'));
-- Whoever is there already needs no walk through the set-up.
ALTER TABLE business ADD COLUMN walk_step TEXT NOT NULL DEFAULT 'done';

ALTER TABLE members ADD COLUMN public_name TEXT NOT NULL DEFAULT '';
ALTER TABLE members ADD COLUMN picture_id TEXT REFERENCES pictures (id);
ALTER TABLE members ADD COLUMN left_at INTEGER;

ALTER TABLE sessions ADD COLUMN device TEXT NOT NULL DEFAULT 'computer'
  CHECK (device IN ('phone', 'computer'));

ALTER TABLE doors ADD COLUMN member_ids TEXT;
ALTER TABLE doors ADD COLUMN closed_at INTEGER;
ALTER TABLE doors ADD COLUMN draft TEXT;
ALTER TABLE doors ADD COLUMN revision INTEGER NOT NULL DEFAULT 0;
ALTER TABLE doors ADD COLUMN changed_by TEXT REFERENCES members (id);

-- Every published dress of a door, so that publishing can be undone. The first is the plain one
-- that a door is made with.
CREATE TABLE dresses (
  door_id TEXT NOT NULL REFERENCES doors (id),
  version INTEGER NOT NULL,
  dress TEXT NOT NULL,
  published_at INTEGER NOT NULL,
  PRIMARY KEY (door_id, version)
) STRICT;

INSERT INTO dresses SELECT id, 1, '{"look":{"ground":"#FBF6EC","accent":"#22304A","side":"right","sidePx":20,"bottomPx":20,"plate":"upright","face":"none","textSize":"usual"},"people":"team","fallback":"en","texts":{},"where":{"pages":{"mode":"all","these":[]},"countries":{"mode":"all","these":[]},"onSmallScreens":true,"manners":[]},"guestBook":{"lit":{"when":"after","asks":[{"field":"name","isRequired":false},{"field":"email","isRequired":false}]},"notLit":{"when":"after","asks":[{"field":"name","isRequired":false},{"field":"email","isRequired":false},{"field":"phone","isRequired":false}]},"own":[]},"consent":{"isAsked":false,"link":""}}', created_at
FROM doors;

-- Where a door's snippet was seen alive; the newest time and page of each website.
CREATE TABLE sightings (
  door_id TEXT NOT NULL REFERENCES doors (id),
  origin TEXT NOT NULL,
  page TEXT NOT NULL,
  at INTEGER NOT NULL,
  PRIMARY KEY (door_id, origin)
) STRICT;

-- Invitations and links to a new password; of the secret only a hash.
CREATE TABLE one_time_links (
  token_hash TEXT PRIMARY KEY,
  kind TEXT NOT NULL CHECK (kind IN ('invite', 'new-password')),
  role TEXT CHECK (role IN ('owner', 'helper')),
  member_id TEXT REFERENCES members (id),
  expires_at INTEGER NOT NULL,
  used_at INTEGER,
  CHECK ((role IS NULL) <> (member_id IS NULL))
) STRICT;

-- What has happened once and for all, for the checklist.
CREATE TABLE ticks (
  name TEXT PRIMARY KEY,
  at INTEGER NOT NULL
) STRICT;
INSERT INTO ticks SELECT 'answered', min(at) FROM entries WHERE kind = 'team-said' HAVING count(*) > 0;

-- The cached folds learn of the owner's own questions and of consent.
UPDATE conversations SET state =
  json_set(state, '$.own', json('[]'), '$.hasConsented', json('false'));
