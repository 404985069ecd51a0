-- Up to which entry the rows of conversations are in step with the rolls; see inbox/rows-behind.ts.
CREATE TABLE rows_behind (
  only_one INTEGER PRIMARY KEY CHECK (only_one = 1),
  seq INTEGER NOT NULL
) STRICT;
INSERT INTO rows_behind SELECT 1, coalesce(max(seq), 0) FROM entries;
