import { Refused } from '../refused';

/** Does one job after the other; null: it ended without doing it. */
export interface Apart<Job, Done> {
  do(job: Job): Promise<Done | null>;
  /** At once, also in the middle of a job. */
  end(): void;
}

export type StartApart<Job, Done> = () => Apart<Job, Done>;

/** How a job ended: done, or why not. */
export type Ended<Done> = { is: 'done'; done: Done } | { is: 'late' } | { is: 'broken' };

/** What is told of each thing once it has ended: whose it was, and how long it took by itself. */
export type Told = (sender: string, tookMs: number) => void;

const TRY_AGAIN_MS = 10_000;

interface Waiting<Job, Done> {
  sender: string;
  job: Job;
  bytes: number;
  settle: (ended: Ended<Done>) => void;
}

/**
 * What strangers sent, opened away from everything else: one thing at a time, the senders in turn, so that whoever sends
 * twelve holds nobody up for longer than one. What takes too long ends the process that has it; the next gets a new
 * one. It always settles.
 */
export const createApart = <Job, Done>({
  start,
  longestMs,
  waitingMost,
  heldMostBytes,
  told = () => undefined,
  steady = () => performance.now(),
}: {
  start: StartApart<Job, Done>;
  /** So long one job may take. */
  longestMs: number;
  /** What one sender may have waiting. */
  waitingMost: number;
  /** What all may have waiting. */
  heldMostBytes: number;
  told?: Told;
  /** Milliseconds of a clock that nobody sets. */
  steady?: () => number;
}) => {
  let waiting: Waiting<Job, Done>[] = [];
  let running: Apart<Job, Done> | null = null;
  let isBusy = false;
  let lastSender = '';

  const next = (): Waiting<Job, Done> | undefined => {
    const other = waiting.find(({ sender }) => sender !== lastSender) ?? waiting[0];
    waiting = waiting.filter((one) => one !== other);
    return other;
  };

  const end = (): void => {
    running?.end();
    running = null;
  };

  const inTime = async (job: Job): Promise<Ended<Done>> => {
    running ??= start();
    let timer: ReturnType<typeof setTimeout> | undefined;
    const late = new Promise<'late'>((resolve) => {
      timer = setTimeout(() => resolve('late'), longestMs);
    });
    const done = await Promise.race([running.do(job), late]);
    clearTimeout(timer);
    if (done === 'late') {
      end();
      return { is: 'late' };
    }
    if (done !== null) return { is: 'done', done };
    end();
    return { is: 'broken' };
  };

  const work = async (): Promise<void> => {
    if (isBusy) return;
    isBusy = true;
    for (let one = next(); one; one = next()) {
      lastSender = one.sender;
      const begunAt = steady();
      const ended = await inTime(one.job).catch(() => ({ is: 'broken' as const }));
      told(one.sender, steady() - begunAt);
      one.settle(ended);
    }
    isBusy = false;
  };

  /** Takes what waited elsewhere. */
  const take = (some: readonly Waiting<Job, Done>[]): void => {
    waiting.push(...some);
    void work();
  };

  return {
    end,
    take,
    /** What somebody has waiting here, which waits here no longer. */
    giveUp: (sender: string): Waiting<Job, Done>[] => {
      const theirs = waiting.filter((one) => one.sender === sender);
      waiting = waiting.filter((one) => one.sender !== sender);
      return theirs;
    },
    /** Waits for its turn, and for how it ended. Refuses at once what is too much. */
    ask: (sender: string, job: Job, bytes: number): Promise<Ended<Done>> => {
      const theirs = waiting.filter((one) => one.sender === sender);
      const held = waiting.reduce((sum, one) => sum + one.bytes, bytes);
      if (theirs.length >= waitingMost || held > heldMostBytes) {
        throw new Refused('too-many', { waitMs: TRY_AGAIN_MS });
      }
      return new Promise((settle) => take([{ sender, job, bytes, settle }]));
    },
  };
};
