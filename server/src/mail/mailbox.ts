import type { IncomingMail } from '@porch/contract/mail';
import { MAIL_LARGEST_BYTES } from '@porch/contract/mail';
import type { ImapFlow } from 'imapflow';
import type { Clock } from '../clock';
import type { MailSettingsKept } from './settings';
import type { MailTaking } from './taking';

type Mailbox = Extract<IncomingMail, { kind: 'mailbox' }>;

const IDLE_AFTER_MS = 500;
const AGAIN_FIRST_MS = 2_000;
const AGAIN_LONGEST_MS = 5 * 60_000;
/** So many of the newest are looked at when it is opened; what is older was there before us. */
const UNSEEN_MOST = 200;

/** A connection, from before it is opened. */
interface Following {
  client: ImapFlow | null;
  isOver: boolean;
}

const open = async (
  { host, port, security, user }: Mailbox,
  password: string,
): Promise<ImapFlow> => {
  const { ImapFlow } = await import('imapflow');
  return new ImapFlow({
    host,
    port,
    secure: security === 'tls',
    ...(security === 'none' ? { doSTARTTLS: false } : {}),
    ...(security === 'starttls' ? { doSTARTTLS: true } : {}),
    auth: { user, pass: password },
    // So soon after the last word it waits to be told of new mail; as it is shipped, after fifteen seconds.
    autoIdleDelay: IDLE_AFTER_MS,
    logger: false,
  });
};

/** Why a mailbox cannot be looked into, by a code. */
const whyOf = (error: unknown): string => {
  const { authenticationFailed, code } = error as { authenticationFailed?: boolean; code?: string };
  if (authenticationFailed) return 'mail-sign-in';
  return code?.includes('TLS') || code?.includes('SSL') ? 'mail-encryption' : 'mail-unreachable';
};

/**
 * Looks into an ordinary mailbox (RFC 9051) for answers, and waits there for more. What is not for us is left as it
 * is; what was taken is marked as seen, which is how it is not taken again.
 */
export const createMailboxes = (services: {
  clock: Clock;
  taking: MailTaking;
  mailSettings: MailSettingsKept;
  report: (error: unknown) => void;
}) => {
  const { clock, taking, mailSettings, report } = services;
  let current: Following | null = null;
  let problem: string | null = null;
  let isStopped = false;

  const takeOne = async (client: ImapFlow, uid: number): Promise<void> => {
    const known = await client.fetchOne(
      `${uid}`,
      { envelope: true, size: true, internalDate: true },
      { uid: true },
    );
    const addressed = known ? [...(known.envelope?.to ?? []), ...(known.envelope?.cc ?? [])] : [];
    const to = addressed.flatMap(({ address }) => address ?? []);
    // Anybody may write to the mailbox: what is for nobody here is not even fetched.
    const cameAt = known ? new Date(known.internalDate ?? Number.NaN).getTime() : Number.NaN;
    const isOurs = (address: string) =>
      taking.isOurs(address, Number.isFinite(cameAt) ? cameAt : undefined);
    const answered = known ? known.envelope?.inReplyTo : undefined;
    const answers = answered ? [answered] : [];
    const isForUs = to.some(isOurs) || taking.isAnswer(to, answers);
    if (!known || !isForUs || (known.size ?? 0) > MAIL_LARGEST_BYTES) return;
    const found = await client.fetchOne(`${uid}`, { source: true, envelope: true }, { uid: true });
    const source = found ? found.source : undefined;
    if (!found || !source) return;
    // Who handed it over is not told in a mailbox; the return path stands in the mail itself, where it does.
    const path = /^Return-Path:\s*<([^>]*)>/im.exec(source.subarray(0, 8_192).toString('latin1'));
    const from = path?.[1] ?? found.envelope?.from?.[0]?.address ?? '';
    const came = await taking.take(source, { from, to });
    if (came !== 'nobodys') await client.messageFlagsAdd(`${uid}`, ['\\Seen'], { uid: true });
  };

  /** From which mail on nobody has looked for those of the doors, in this state of the mailbox (RFC 9051, 2.3.1.1). */
  const firstNew = (validity: string): number | null => {
    const marks = taking.openDoors().map(({ id }) => taking.markOf(id));
    const seen = marks.map((mark) => mark.split('.')).filter(([state]) => state === validity);
    // A door that has looked at nothing yet begins with what comes from now on.
    return seen.length > 0 ? Math.min(...seen.map(([, uid]) => Number(uid))) + 1 : null;
  };

  /** Mails that somebody may have read elsewhere before we looked, which are marked as seen. */
  const readElsewhere = async (client: ImapFlow, from: number | null): Promise<number[]> => {
    if (from === null) return [];
    const found = (await client.search({ uid: `${from}:*` }, { uid: true })) || [];
    // A range that ends with * has the last mail in it, whatever that is.
    return found.filter((uid) => uid >= from);
  };

  /** Whether all that is new could be taken; what could not is looked at again. */
  const takeNew = async (client: ImapFlow, looked: Set<number>): Promise<boolean> => {
    const unseen = (await client.search({ seen: false }, { uid: true })) || [];
    const { uidValidity = 0n, uidNext = 1 } = client.mailbox || {};
    const elsewhere = await readElsewhere(client, firstNew(`${uidValidity}`));
    const uids = [...new Set([...unseen.slice(-UNSEEN_MOST), ...elsewhere])].sort((a, b) => a - b);
    let isWhole = true;
    for (const uid of uids) {
      if (looked.has(uid)) continue;
      try {
        await takeOne(client, uid);
        looked.add(uid);
      } catch (error) {
        report(error);
        isWhole = false;
      }
    }
    const upTo = Math.max(uidNext - 1, ...uids);
    if (isWhole) await taking.lookedUpTo(`${uidValidity}.${upTo}`);
    return isWhole;
  };

  /** One connection, from signing in until it ends; fails with why it ended. */
  const follow = async (mailbox: Mailbox, client: ImapFlow, mine: Following) => {
    // What is not ours stays unseen, and is not fetched again and again.
    const looked = new Set<number>();
    const ended = new Promise<void>((resolve) => client.once('close', resolve));
    client.on('error', report);
    await client.connect();
    await client.mailboxOpen('INBOX');
    problem = null;
    let taking: Promise<void> = Promise.resolve();
    let isWaiting = false;
    const takeLater = async (): Promise<void> => {
      if (isWaiting) return;
      isWaiting = true;
      await clock.wait(AGAIN_LONGEST_MS);
      isWaiting = false;
      if (client.usable) take();
    };
    const take = (): void => {
      taking = taking
        .then(async () => {
          if (!(await takeNew(client, looked))) takeLater().catch(report);
        })
        .catch(report);
    };
    client.on('exists', take);
    take();
    await ended;
    if (!mine.isOver) throw new Error(`the mailbox at ${mailbox.host} was closed`);
  };

  const run = async (mailbox: Mailbox, password: string): Promise<void> => {
    let waitMs = AGAIN_FIRST_MS;
    for (;;) {
      const mine: Following = { client: null, isOver: false };
      current = mine;
      const client = await open(mailbox, password);
      mine.client = client;
      if (mine.isOver) return;
      const beganAt = clock.steady();
      await follow(mailbox, client, mine).catch((error) => {
        problem = whyOf(error);
      });
      if (mine.isOver || isStopped) return;
      // A connection that lasted was a good one: the next is tried soon.
      waitMs =
        clock.steady() - beganAt > AGAIN_LONGEST_MS
          ? AGAIN_FIRST_MS
          : Math.min(AGAIN_LONGEST_MS, waitMs * 2);
      await clock.wait(waitMs);
      if (mine.isOver || isStopped) return;
    }
  };

  const stop = (): void => {
    if (!current) return;
    current.isOver = true;
    current.client?.close();
    current = null;
  };

  return {
    problem: (): string | null => problem,
    /** Looks into whatever mailbox the settings name from now on. */
    restart: (): void => {
      stop();
      problem = null;
      const { incoming } = mailSettings.now();
      if (incoming.kind !== 'mailbox' || isStopped) return;
      const password = mailSettings.incomingPassword();
      if (password === null) {
        problem = 'secret-sealed';
        return;
      }
      run(incoming, password).catch(report);
    },
    stop: (): void => {
      isStopped = true;
      stop();
    },
  };
};

export type Mailboxes = ReturnType<typeof createMailboxes>;
