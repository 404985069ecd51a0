-- What is done for one lane (the answers to one person at one door) is done in turn: `behind` says that another of the
-- same lane comes first. `belongs` is whose work it is (a door, a push service): those share what there is to do it
-- with, and go together when the door goes. `named` says that the other side named the time.
ALTER TABLE jobs ADD COLUMN lane TEXT;
ALTER TABLE jobs ADD COLUMN behind INTEGER NOT NULL DEFAULT 0 CHECK (behind IN (0, 1));
ALTER TABLE jobs ADD COLUMN belongs TEXT NOT NULL DEFAULT '';
ALTER TABLE jobs ADD COLUMN named INTEGER NOT NULL DEFAULT 0 CHECK (named IN (0, 1));

-- Answers that wait from before: those to one person are one lane.
UPDATE jobs SET
  belongs = coalesce((SELECT door_id FROM deliveries WHERE seq = json_extract(load, '$.seq')), ''),
  lane = (
    SELECT 'deliver ' || deliveries.door_id || ' ' || threads.address
    FROM deliveries
    JOIN entries ON entries.seq = deliveries.seq
    JOIN threads ON threads.id = entries.thread_id
    WHERE deliveries.seq = json_extract(load, '$.seq')
  )
  WHERE kind = 'deliver';
UPDATE jobs SET behind = 1
  WHERE lane IS NOT NULL AND state <> 'dead' AND EXISTS (
    SELECT 1 FROM jobs AS earlier
    WHERE earlier.lane = jobs.lane AND earlier.id < jobs.id AND earlier.state <> 'dead'
  );

DROP INDEX IF EXISTS jobs_due;
CREATE INDEX jobs_due ON jobs (kind, state, behind, belongs, not_before, id);
CREATE INDEX jobs_lanes ON jobs (lane, behind, id) WHERE lane IS NOT NULL AND state <> 'dead';
DROP INDEX IF EXISTS jobs_waiting;
CREATE INDEX jobs_waiting ON jobs (belongs, id) WHERE wait_ms > 0;

CREATE TRIGGER jobs_line_up AFTER INSERT ON jobs WHEN NEW.lane IS NOT NULL BEGIN
  UPDATE jobs SET behind = 1 WHERE id = NEW.id AND EXISTS (
    SELECT 1 FROM jobs
    WHERE lane = NEW.lane AND state <> 'dead' AND behind = 0 AND id <> NEW.id
  );
END;
CREATE TRIGGER jobs_line_up_again AFTER UPDATE OF state ON jobs
WHEN NEW.lane IS NOT NULL AND OLD.state = 'dead' AND NEW.state <> 'dead' BEGIN
  UPDATE jobs SET behind = EXISTS (
    SELECT 1 FROM jobs
    WHERE lane = NEW.lane AND state <> 'dead' AND behind = 0 AND id <> NEW.id
  ) WHERE id = NEW.id;
END;
CREATE TRIGGER jobs_next_after_death AFTER UPDATE OF state ON jobs
WHEN NEW.lane IS NOT NULL AND OLD.state <> 'dead' AND NEW.state = 'dead' AND NEW.behind = 0 BEGIN
  UPDATE jobs SET behind = 0 WHERE id = (
    SELECT id FROM jobs
    WHERE lane = NEW.lane AND state <> 'dead' AND behind = 1 ORDER BY id LIMIT 1
  );
END;
CREATE TRIGGER jobs_next AFTER DELETE ON jobs
WHEN OLD.lane IS NOT NULL AND OLD.state <> 'dead' AND OLD.behind = 0 BEGIN
  UPDATE jobs SET behind = 0 WHERE id = (
    SELECT id FROM jobs
    WHERE lane = OLD.lane AND state <> 'dead' AND behind = 1 ORDER BY id LIMIT 1
  );
END;
