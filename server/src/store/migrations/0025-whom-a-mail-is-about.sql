-- To whom an alert's answer by mail goes: whoever had written when it was written. '': it went out before that was kept.
ALTER TABLE reply_addresses ADD COLUMN thread_id TEXT NOT NULL DEFAULT '';
