import { Refused } from '../refused';
import { type Done, develop, type EncodedPicture, type Job } from './work';

/** Does one job after the other; null: it ended without doing it. */
export interface Decoder {
  develop(job: Job): Promise<Done | null>;
  /** At once, also in the middle of a job. */
  end(): void;
}

export type StartDecoder = () => Decoder;

/** In this process: for data of our own, and for tests. What it is given cannot be ended. */
export const decoderInside: StartDecoder = () => ({ develop, end: () => {} });

/** What one sender may have waiting: as much as goes with one message, and one in the making. */
const WAITING_MOST = 7;
const HELD_MOST_BYTES = 96 * 1024 * 1024;
const TRY_AGAIN_MS = 10_000;

interface Waiting {
  sender: string;
  job: Job;
  settle: (done: Done | null) => void;
}

/**
 * One lane: one picture at a time, the senders in turn, so that whoever sends twelve holds nobody up for
 * longer than one. A picture that takes too long ends its decoder; the next gets a new one.
 */
const createLane = (start: StartDecoder, longestMs: number) => {
  let waiting: Waiting[] = [];
  let decoder: Decoder | null = null;
  let isBusy = false;
  let lastSender = '';

  const next = (): Waiting | undefined => {
    const other = waiting.find(({ sender }) => sender !== lastSender) ?? waiting[0];
    waiting = waiting.filter((one) => one !== other);
    return other;
  };

  const end = (): void => {
    decoder?.end();
    decoder = null;
  };

  const inTime = async (job: Job): Promise<Done | null> => {
    decoder ??= start();
    let timer: ReturnType<typeof setTimeout> | undefined;
    const late = new Promise<'late'>((resolve) => {
      timer = setTimeout(() => resolve('late'), longestMs);
    });
    const done = await Promise.race([decoder.develop(job), late]);
    clearTimeout(timer);
    if (done === 'late') {
      end();
      return { refusal: { code: 'picture-takes-too-long' } };
    }
    if (done === null) end();
    return done;
  };

  const work = async (): Promise<void> => {
    if (isBusy) return;
    isBusy = true;
    for (let one = next(); one; one = next()) {
      lastSender = one.sender;
      one.settle(await inTime(one.job).catch(() => null));
    }
    isBusy = false;
  };

  const refuseCrowd = (sender: string, bytes: number): void => {
    const theirs = waiting.filter((one) => one.sender === sender);
    const held = waiting.reduce((sum, { job }) => sum + job.bytes.length, bytes);
    if (theirs.length >= WAITING_MOST || held > HELD_MOST_BYTES) {
      throw new Refused('too-many', { waitMs: TRY_AGAIN_MS });
    }
  };

  return {
    end,
    ask: (sender: string, job: Job): Promise<Done | null> => {
      refuseCrowd(sender, job.bytes.length);
      return new Promise((settle) => {
        waiting.push({ sender, job, settle });
        void work();
      });
    },
  };
};

/** Who sends a picture: strangers wait for strangers only, the team for the team. */
export interface Sending {
  lane: 'visitors' | 'team';
  /** Whom it is from: an address, or a member. */
  sender: string;
}

/** Where pictures from outside are opened: away from everything else, each for a bounded time. */
export const createDarkroom = (start: StartDecoder, longestMs: number) => {
  const lanes = { visitors: createLane(start, longestMs), team: createLane(start, longestMs) };

  const ask = async ({ lane, sender }: Sending, job: Job): Promise<Done> => {
    const done = await lanes[lane].ask(sender, job);
    if (!done) throw new Refused('picture-unreadable');
    if ('refusal' in done) {
      const { code, ...facts } = done.refusal;
      throw new Refused(code, facts);
    }
    return done;
  };

  return {
    /** A picture encoded anew, with its thumbnail. Refuses what is too large, too slow, or none. */
    encode: async (bytes: Buffer, from: Sending): Promise<EncodedPicture> => {
      const done = await ask(from, { do: 'encode', bytes });
      if (!('picture' in done)) throw new Refused('picture-unreadable');
      return done.picture;
    },
    /** The square that `crop` cuts out, as it is kept of a face. */
    cut: async (
      bytes: Buffer,
      crop: Extract<Job, { do: 'cut' }>['crop'],
      from: Sending,
    ): Promise<Buffer> => {
      const done = await ask(from, { do: 'cut', bytes, crop });
      if (!('face' in done)) throw new Refused('picture-unreadable');
      return done.face;
    },
    end: (): void => {
      lanes.visitors.end();
      lanes.team.end();
    },
  };
};

export type Darkroom = ReturnType<typeof createDarkroom>;
