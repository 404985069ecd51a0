-- What must happen, written in the same transaction as its cause; see jobs/worker.ts. A lease is a number that
-- grows with each taking: whoever comes back with an older one is too late.
CREATE TABLE jobs (
  id INTEGER PRIMARY KEY AUTOINCREMENT,
  key TEXT NOT NULL UNIQUE,
  kind TEXT NOT NULL,
  load TEXT NOT NULL,
  state TEXT NOT NULL CHECK (state IN ('ready', 'leased', 'dead')),
  not_before INTEGER NOT NULL,
  -- How much of not_before is waiting before another try; 0: it is a moment that somebody named.
  wait_ms INTEGER NOT NULL,
  tries INTEGER NOT NULL,
  lease INTEGER NOT NULL,
  why TEXT,
  made_at INTEGER NOT NULL,
  died_at INTEGER
) STRICT;
CREATE INDEX jobs_due ON jobs (kind, state, not_before, id);
CREATE INDEX jobs_leased ON jobs (id) WHERE state = 'leased';
CREATE INDEX jobs_dead ON jobs (id) WHERE state = 'dead';
CREATE INDEX jobs_waiting ON jobs (id) WHERE wait_ms > 0;
CREATE TABLE job_counts (
  only_one INTEGER PRIMARY KEY CHECK (only_one = 1),
  dead INTEGER NOT NULL
) STRICT;
INSERT INTO job_counts VALUES (1, 0);
CREATE TRIGGER jobs_died AFTER UPDATE OF state ON jobs WHEN OLD.state <> NEW.state BEGIN
  UPDATE job_counts SET dead = dead + (NEW.state = 'dead') - (OLD.state = 'dead');
END;
CREATE TRIGGER jobs_left AFTER DELETE ON jobs WHEN OLD.state = 'dead' BEGIN
  UPDATE job_counts SET dead = dead - 1;
END;

-- What is put by comes back by a job.
INSERT INTO jobs (key, kind, load, state, not_before, wait_ms, tries, lease, made_at)
  SELECT 'return ' || id, 'return', json_object('conversationId', id), 'ready', put_by_until, 0, 0, 0, 0
  FROM conversations WHERE put_by_until IS NOT NULL;
DROP INDEX conversations_put_by;
ALTER TABLE conversations DROP COLUMN put_by_until;
