-- What was answered to what: to be offered to whoever asks alike. What concerned one person only is a gap in it.
CREATE TABLE answers_given (
  seq INTEGER PRIMARY KEY,
  question TEXT NOT NULL,
  text TEXT NOT NULL,
  language TEXT NOT NULL
) STRICT;

-- After which questions something stored was picked.
CREATE TABLE picks (
  kind TEXT NOT NULL,
  id TEXT NOT NULL,
  seq INTEGER NOT NULL,
  question TEXT NOT NULL,
  PRIMARY KEY (kind, id, seq)
) STRICT, WITHOUT ROWID;
