-- When the business is open ('house'), and the week of a door that keeps its own.
CREATE TABLE opening_hours (
  place TEXT PRIMARY KEY,
  hours TEXT NOT NULL
) STRICT, WITHOUT ROWID;

-- Public holidays, reckoned out a year at a time for the place that was chosen.
CREATE TABLE holidays (
  country TEXT NOT NULL,
  region TEXT NOT NULL,
  year INTEGER NOT NULL,
  days TEXT NOT NULL,
  PRIMARY KEY (country, region, year)
) STRICT, WITHOUT ROWID;

-- Who is out, and until when if they said so.
ALTER TABLE members ADD COLUMN is_out INTEGER NOT NULL DEFAULT 0;
ALTER TABLE members ADD COLUMN out_until INTEGER;

-- A light that was simply lit goes by the hours now; where there are none it stays lit.
DELETE FROM lamp WHERE state = 'lit';

-- How long somebody who waited had to wait for a first answer, in open time.
CREATE TABLE answer_times (
  at INTEGER NOT NULL,
  door_id TEXT NOT NULL,
  took_ms INTEGER NOT NULL
) STRICT;
CREATE INDEX answer_times_by_age ON answer_times (at);

-- What the business promises to whoever writes.
CREATE TABLE promises (
  id INTEGER PRIMARY KEY CHECK (id = 1),
  settings TEXT NOT NULL
) STRICT;

-- For whom, waiting since then, it was asked whether the light should say "back soon".
CREATE TABLE late_asked (
  conversation_id TEXT PRIMARY KEY,
  since INTEGER NOT NULL
) STRICT, WITHOUT ROWID;
