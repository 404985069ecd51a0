-- For whom an invitation is, in the words of whoever made it: open ones are told apart by it.
ALTER TABLE one_time_links ADD COLUMN name TEXT NOT NULL DEFAULT '';
