-- Up to which answer a mail was begun for a thread: where it is not known whether the server took it, the same mail is
-- sent again under its name, and what was said meanwhile goes after it.
CREATE TABLE visitor_mails_begun (
  thread_id TEXT PRIMARY KEY REFERENCES threads (id),
  up_to INTEGER NOT NULL
) STRICT;

-- A mail that came without the detail in its address is known by what it answers.
CREATE INDEX visitor_mails_named ON visitor_mails (message_id);
