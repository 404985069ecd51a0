import { type Apart, createApart, type StartApart, type Told } from '../apart/lane';
import { createSuspects } from '../apart/suspects';
import { Refused } from '../refused';
import { type Done, develop, type EncodedPicture, type Job } from './work';

export type Decoder = Apart<Job, Done>;
export type StartDecoder = StartApart<Job, Done>;

/** In this process: for data of our own, and for tests. What it is given cannot be ended. */
export const decoderInside: StartDecoder = () => ({ do: develop, end: () => {} });

/** What one sender may have waiting: as much as goes with one message, and one in the making. */
const WAITING_MOST = 7;
const HELD_MOST_BYTES = 96 * 1024 * 1024;

/** Who sends a picture: strangers wait for strangers only, the team for the team. */
export interface Sending {
  lane: 'visitors' | 'team';
  /** Whom it is from: an address, or a member. */
  sender: string;
}

/** So long nobody's small picture waits for each of somebody else's. A camera's own may take longer: it waits with its like. */
const SLOW_MS = 400;
/** So long whoever sent a slow one waits for others who did. */
const SLOW_SENDER_MS = 600_000;

/**
 * Where pictures from outside are opened: away from everything else, each for a bounded time. A visitor whose pictures
 * take long has theirs opened beside the others', so that nobody's quick one waits for more than the first of them.
 */
export const createDarkroom = (start: StartDecoder, longestMs: number, steady?: () => number) => {
  const lane = (told?: Told) =>
    createApart({
      start,
      longestMs,
      waitingMost: WAITING_MOST,
      heldMostBytes: HELD_MOST_BYTES,
      told,
      steady,
    });
  const slowSenders = createSuspects(SLOW_SENDER_MS, steady);
  const lanes = {
    team: lane(),
    slow: lane(),
    visitors: lane((sender, tookMs) => {
      if (tookMs < SLOW_MS) return;
      slowSenders.add(sender);
      lanes.slow.take(lanes.visitors.giveUp(sender));
    }),
  };

  const ask = async ({ lane: which, sender }: Sending, job: Job): Promise<Done> => {
    const isSlow = which === 'visitors' && slowSenders.has(sender);
    const ended = await lanes[isSlow ? 'slow' : which].ask(sender, job, job.bytes.length);
    if (ended.is === 'late') throw new Refused('picture-takes-too-long');
    if (ended.is === 'broken') throw new Refused('picture-unreadable');
    const { done } = ended;
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
      for (const one of Object.values(lanes)) one.end();
    },
  };
};

export type Darkroom = ReturnType<typeof createDarkroom>;
