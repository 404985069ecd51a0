import { type ChildProcess, spawn } from 'node:child_process';
import {
  chmodSync,
  chownSync,
  mkdirSync,
  mkdtempSync,
  renameSync,
  rmSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { freePort, isThere } from './ports';

const DOVECOT = '/usr/sbin/dovecot';

/** Debian's own user for mail. */
const MAIL_ID = 8;

const configurationFor = (dir: string, port: number): string => `
base_dir = ${dir}/run
state_dir = ${dir}/state
log_path = ${dir}/log
protocols = imap
listen = 127.0.0.1
default_login_user = dovenull
default_internal_user = dovecot
ssl = no
disable_plaintext_auth = no
mail_location = maildir:${dir}/mail
first_valid_uid = 1
recipient_delimiter = +
mailbox_idle_check_interval = 1 secs
service imap-login {
  inet_listener imap {
    port = ${port}
  }
  inet_listener imaps {
    port = 0
  }
}
service stats {
  unix_listener stats-writer {
    mode = 0666
  }
}
passdb {
  driver = static
  args = password=right
}
userdb {
  driver = static
  args = uid=mail gid=mail home=${dir}/mail
}
`;

/** A real mailbox, by a server from Debian's packages: what nobody here made. */
export const openRealMailbox = async () => {
  const dir = mkdtempSync(join(tmpdir(), 'mailbox-'));
  chmodSync(dir, 0o755);
  for (const folder of ['mail', 'mail/new', 'mail/cur', 'mail/tmp']) mkdirSync(join(dir, folder));
  const own = (path: string): void => chownSync(join(dir, path), MAIL_ID, MAIL_ID);
  for (const folder of ['mail', 'mail/new', 'mail/cur', 'mail/tmp']) own(folder);
  let port = 0;
  let child: ChildProcess | null = null;
  let count = 0;

  const start = async (): Promise<void> => {
    port ||= await freePort();
    writeFileSync(join(dir, 'conf'), configurationFor(dir, port));
    child = spawn(DOVECOT, ['-F', '-c', join(dir, 'conf')], { stdio: 'ignore' });
    const deadline = Date.now() + 60_000;
    while (!(await isThere(port, { greets: true }))) {
      if (Date.now() > deadline) throw new Error(`the mailbox did not start, see ${dir}/log`);
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
  };
  const stop = async (): Promise<void> => {
    const running = child;
    child = null;
    if (!running) return;
    const gone = new Promise((resolve) => running.once('exit', resolve));
    running.kill('SIGTERM');
    await gone;
  };
  await start();
  return {
    port: () => port,
    stop,
    start,
    /** Lays a mail into it, as the server does that received it; `cameAt`: when, `isRead`: somebody has read it already. */
    deliver: (raw: string, { cameAt = new Date(), isRead = false } = {}): void => {
      count += 1;
      const name = `${Date.now()}.${count}.test`;
      writeFileSync(join(dir, 'mail', 'tmp', name), raw.replace(/\r?\n/g, '\r\n'));
      own(`mail/tmp/${name}`);
      // From there into its place in one go (maildir): nobody reads half a mail.
      const from = join(dir, 'mail', 'tmp', name);
      const to = join(dir, 'mail', isRead ? `cur/${name}:2,S` : `new/${name}`);
      utimesSync(from, cameAt, cameAt);
      renameSync(from, to);
    },
    close: async (): Promise<void> => {
      await stop();
      rmSync(dir, { recursive: true, force: true });
    },
  };
};
