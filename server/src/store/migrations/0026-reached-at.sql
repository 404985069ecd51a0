-- Under which address the owner reached the house when they set it up or said how mail goes: links in mails lead there.
CREATE TABLE reached_at (
  only_one INTEGER PRIMARY KEY CHECK (only_one = 1),
  origin TEXT NOT NULL
) STRICT;
