import { createHash } from 'node:crypto';
import { bareOf } from '@porch/core/ringing';
import type { Clock } from '../clock';
import type { Write, Written } from '../inbox/batch';
import type { Persons } from '../inbox/persons';
import type { Record } from '../inbox/record';
import { type About, JobFailed, type JobKind } from '../jobs/worker';
import type { News } from '../live/hub';
import type { BellDeviceRecord, Store } from '../store';
import { type Push, type Pushed, type Pusher, topicOf } from './push';
import { type PushJob, pushLaneOf, pushPlaceOf, type Ringing } from './ringing';
import type { Trials } from './trials';

/** How a try ended that is not tried again; `over`: there was nothing to ring for any more. */
type Ended = Exclude<Pushed, { is: 'later' | 'too-large' }> | { is: 'over' };

/** A ring that comes later than this says nothing any more. */
const RING_LASTS_SECONDS = 4 * 3_600;
const TRIAL_LASTS_SECONDS = 60;
/** What fails by our own fault is given up after so many tries. */
const TRIES_MOST = 6;

const lastsSecondsOf = ({ load }: PushJob): number =>
  load.say === 'trial' ? TRIAL_LASTS_SECONDS : RING_LASTS_SECONDS;

const nothing: Written<unknown> = { result: null, news: [] };

/** The same for the same ring of the same person, on however many devices: it stands on the roll once. */
const rangId = (ring: string, memberId: string): string =>
  createHash('sha256').update(`${ring} ${memberId}`).digest('base64url').slice(0, 24);

/** Until when it is worth ringing, UTC epoch milliseconds. */
const endOf = (job: PushJob, madeAt: number): number => madeAt + lastsSecondsOf(job) * 1_000;

const toPush = (
  { endpoint, p256dh, auth }: BellDeviceRecord,
  job: PushJob,
  waitedMs: number,
): Omit<Push, 'load'> => ({
  endpoint,
  keys: { p256dh, auth },
  // What has waited here already waits there so much less.
  lastsSeconds: Math.max(1, lastsSecondsOf(job) - Math.floor(waitedMs / 1_000)),
  // What is taken back saves nobody's day by waking a phone; it comes with whatever wakes it next.
  urgency: job.load.say === 'hush' ? 'normal' : 'high',
  // A newer word about the same conversation takes the place of one that was not fetched yet.
  topic: job.talk === null ? null : topicOf(job.talk),
});

/** Rings devices, each by a job of its own: a slow one holds up no other. */
export const createPushing = (services: {
  store: Store;
  clock: Clock;
  write: Write;
  record: Record;
  persons: Persons;
  ringing: Ringing;
  pusher: Pusher;
  trials: Trials;
}): JobKind<PushJob, Ended> => {
  const { store, clock, write, record, persons, ringing, pusher, trials } = services;

  const isOver = ({ talk, isOfRound }: PushJob): boolean => {
    if (!isOfRound || talk === null) return false;
    const standing = persons.standing(talk);
    return !standing || !ringing.isOpen(standing.id);
  };

  /** Something newer about the same conversation waits for the same device: what is heard is one alert, not a heap. */
  const isSuperseded = (job: PushJob): boolean => {
    const lane = pushLaneOf(job);
    return lane !== null && store.jobs.isAnyBehind(lane);
  };

  const send = async (
    device: BellDeviceRecord,
    job: PushJob,
    { madeAt, signal }: Pick<About, 'madeAt' | 'signal'>,
  ) => {
    const push = toPush(device, job, Math.max(0, clock.now() - madeAt));
    const first = await pusher.send({ ...push, load: job.load }, signal);
    if (first.is !== 'too-large') return first;
    return pusher.send({ ...push, load: bareOf(job.load) }, signal);
  };

  /** Whoever looks at their devices sees what is wrong from the first try on. */
  const noteFailing = async ({ deviceId }: PushJob, why: string): Promise<void> => {
    if (store.bellDevices.byId(deviceId)?.why === why) return;
    await write(() => {
      store.bellDevices.failed(deviceId, clock.now(), why);
      return { result: null, news: [], isHouse: true };
    });
  };

  /** On the roll, once a ring and person: that they were rung, or that none of their devices could be. */
  const onTheRoll = ({ memberId, talk, load }: PushJob, failed: string | null): News[] => {
    if (load.say !== 'ring' || talk === null) return [];
    const conversation = persons.standing(talk);
    if (!conversation) return [];
    const id = rangId(load.ring, memberId);
    if (store.entries.within(persons.scopeOf(conversation), id)) return [];
    // One of their other devices may still ring.
    const others = `push ${load.ring} ${memberId} `;
    if (failed !== null && store.jobs.isAnyUnder(others)) return [];
    const why = failed === null ? {} : { failed };
    const happening = { kind: 'rang' as const, memberId, by: 'push' as const, ...why };
    return [record.add(conversation, null, [{ id, happening }])];
  };

  const failed = (job: PushJob, why: string): Written<unknown> => {
    if (job.load.say === 'trial') trials.failed(job.deviceId, job.load.ring, why);
    store.bellDevices.failed(job.deviceId, clock.now(), why);
    return { result: null, news: onTheRoll(job, why), isHouse: true };
  };

  return {
    name: 'push',
    atOnce: 64,
    atOnceOfOne: 24,
    leaseMs: 40_000,
    triesMost: TRIES_MOST,
    worth: (job, madeAt) => ({ until: endOf(job, madeAt), why: null }),
    firstWaitMs: 2_000,
    longestWaitMs: 60_000,
    do: async (job, about) => {
      const device = store.bellDevices.byId(job.deviceId);
      if (!device || device.memberId !== job.memberId || isOver(job)) return { is: 'over' };
      // What was shown before it was muted is taken back all the same.
      if (device.isMuted && job.load.say === 'ring') return { is: 'over' };
      const pushed = await send(device, job, about);
      switch (pushed.is) {
        case 'later':
          await noteFailing(job, pushed.why);
          if (isSuperseded(job)) return { is: 'over' };
          if (clock.now() >= endOf(job, about.madeAt)) return { is: 'refused', why: pushed.why };
          throw new JobFailed(pushed.why, false, pushed.afterMs);
        case 'too-large':
          return { is: 'refused', why: 'push-refused' };
        default:
          return pushed;
      }
    },
    note: (job, ended) => {
      const { deviceId, load } = job;
      switch (ended.is) {
        case 'over':
          return nothing;
        case 'taken': {
          const device = store.bellDevices.byId(deviceId);
          const isWellAgain = device?.why !== null;
          // Its push service works: what waited for that goes now.
          if (device) store.jobs.hurry(pushPlaceOf(device), clock.now());
          store.bellDevices.rung(deviceId, clock.now());
          if (load.say === 'trial') trials.taken(deviceId, load.ring);
          const isHouse = isWellAgain || load.say === 'trial';
          return { result: null, news: onTheRoll(job, null), isHouse };
        }
        case 'gone': {
          const news = onTheRoll(job, 'push-gone');
          if (load.say === 'trial') trials.failed(deviceId, load.ring, 'push-gone');
          store.bellDevices.drop(deviceId);
          return { result: null, news, isHouse: true };
        }
        case 'refused':
          return failed(job, ended.why);
      }
    },
    // The newer word may have come while this one was being tried.
    later: (job) => {
      const lane = pushLaneOf(job);
      if (lane !== null && store.jobs.isAnyBehind(lane)) store.jobs.dropWaiting(lane);
      return nothing;
    },
    buried: failed,
  };
};
