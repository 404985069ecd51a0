-- When somebody of the team was last seen to be here, UTC epoch milliseconds; see lamp/here.ts.
CREATE TABLE here (
  member_id TEXT PRIMARY KEY REFERENCES members (id),
  at INTEGER NOT NULL
) STRICT;
