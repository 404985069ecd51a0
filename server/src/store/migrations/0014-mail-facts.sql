-- Pictures of a mail that lie elsewhere, in their order: fetched only when somebody asks for them, and kept then.
CREATE TABLE mail_pictures (
  thread_id TEXT NOT NULL REFERENCES threads (id),
  entry_id TEXT NOT NULL,
  at INTEGER NOT NULL,
  address TEXT NOT NULL,
  file_id TEXT REFERENCES files (id),
  PRIMARY KEY (thread_id, entry_id, at)
) STRICT, WITHOUT ROWID;
CREATE INDEX mail_pictures_by_file ON mail_pictures (file_id);

-- What the last mail of a thread was about.
CREATE TABLE mail_subjects (
  thread_id TEXT PRIMARY KEY REFERENCES threads (id),
  subject TEXT NOT NULL
) STRICT, WITHOUT ROWID;
