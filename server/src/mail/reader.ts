import { createApart, type StartApart } from '../apart/lane';
import { createSuspects } from '../apart/suspects';
import type { Clock } from '../clock';
import { bareMail, headOf, type MailJob, type ReadMail } from './read-mail';

export type StartMailReader = StartApart<MailJob, ReadMail>;

/** In this process: for mails that we made ourselves. What it is given cannot be ended; nothing is loaded before that. */
export const mailReaderInside: StartMailReader = () => ({
  do: async (job) => (await import('./reading')).readJob(job),
  end: () => {},
});

const WAITING_MOST = 20;
const HELD_MOST_BYTES = 96 * 1024 * 1024;
/** Whoever sent a mail that took too long waits for others like that, for so long. */
const SUSPECT_MS = 3_600_000;

/**
 * Where mails are read: away from everything else, each for a bounded time and with bounded memory. It always settles:
 * of what cannot be read the header is, and of what has no header that it came. Whoever sends such mails waits in a
 * lane with others who did, so that an honest mail waits for honest ones only.
 */
export const createMailReader = ({
  start,
  clock,
  quickMs,
  slowMs,
}: {
  start: StartMailReader;
  clock: Clock;
  /** So long a mail may take of somebody of whom nothing bad is known. */
  quickMs: number;
  /** So long it may take at all. */
  slowMs: number;
}) => {
  const lane = (longestMs: number) =>
    createApart({ start, longestMs, waitingMost: WAITING_MOST, heldMostBytes: HELD_MOST_BYTES });
  const quick = lane(quickMs);
  const slow = lane(slowMs);
  const suspects = createSuspects(SUSPECT_MS, clock.steady);

  const headAlone = async (bytes: Buffer, sender: string): Promise<ReadMail> => {
    const head = headOf(bytes);
    const ended = await slow.ask(sender, { do: 'head', bytes: head }, head.length);
    const bare = bareMail(bytes);
    return ended.is === 'done' ? { ...ended.done, id: bare.id, isUnreadable: true } : bare;
  };

  return {
    /** Reads a mail of somebody; `isUnreadable` where only its header could be, or not even that. */
    read: async (bytes: Buffer, sender: string): Promise<ReadMail> => {
      const job: MailJob = { do: 'read', bytes };
      if (!suspects.has(sender)) {
        const ended = await quick.ask(sender, job, bytes.length);
        if (ended.is === 'done') return ended.done;
        suspects.add(sender);
      }
      const ended = await slow.ask(sender, job, bytes.length);
      return ended.is === 'done' ? ended.done : headAlone(bytes, sender);
    },
    end: (): void => {
      quick.end();
      slow.end();
    },
  };
};

export type MailReader = ReturnType<typeof createMailReader>;
