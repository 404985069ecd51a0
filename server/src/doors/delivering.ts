import type { Delivery } from '@porch/contract/doors';
import type { Entry, Step } from '@porch/core/conversation';
import type { Clock } from '../clock';
import type { Write, Written } from '../inbox/batch';
import type { Record } from '../inbox/record';
import { JobFailed, type JobKind } from '../jobs/worker';
import type { News } from '../live/hub';
import { newId } from '../security/tokens';
import type { DeliveryRecord, Store, ThreadRecord } from '../store';
import type { Registry } from './registry';

interface Load {
  seq: number;
}

/** How far each step is; a network says them in any order, and the furthest counts. */
const rank: { readonly [One in Step]: number } = {
  waiting: 0,
  sent: 1,
  failed: 2,
  arrived: 3,
  read: 4,
};

const DAY_MS = 24 * 3_600_000;

/** Carries out by doors what is said, and notes of each message how far it has come. */
export const createDelivering = (services: {
  store: Store;
  clock: Clock;
  record: Record;
  write: Write;
  registry: Registry;
}) => {
  const { store, clock, record, write, registry } = services;

  /** Notes how far an entry has come, where that is further than was known. */
  const step = (known: DeliveryRecord, next: Omit<DeliveryRecord, 'seq' | 'doorId'>): News[] => {
    if (rank[next.step] <= rank[known.step]) {
      if (next.networkId) store.deliveries.update({ ...known, networkId: next.networkId });
      return [];
    }
    store.deliveries.update({ ...known, ...next });
    const entry = store.entries.bySeq(known.seq);
    const conversation = entry && store.conversations.byId(entry.conversationId);
    if (!entry || !conversation) return [];
    const why = next.why === null ? {} : { why: next.why };
    const happening = { kind: 'receipt' as const, of: known.seq, step: next.step, ...why };
    return [record.add(conversation, entry.threadId, [{ id: newId(), happening }])];
  };

  const send = async ({ seq }: Load, key: string, signal: AbortSignal): Promise<Delivery> => {
    const entry = store.entries.bySeq(seq);
    const thread = entry?.threadId ? store.threads.byId(entry.threadId) : null;
    const door = thread && store.doors.byId(thread.doorId);
    const kind = door && registry.kindOf(door);
    if (entry?.kind !== 'team-said' || !thread || !door || !kind?.send) {
      throw new JobFailed('door-unknown', true);
    }
    const { text, files } = entry;
    const outbound = { key, to: thread.address, text, files };
    return kind.send({ door, secret: registry.secretOf(door), outbound, signal });
  };

  /** The door is said to fail from the first try on, not only when it is given up. */
  const noteFailing = async ({ seq }: Load, why: string): Promise<void> => {
    const doorId = store.deliveries.bySeq(seq)?.doorId;
    if (!doorId || store.doors.health(doorId).why === why) return;
    await write(() => {
      store.doors.failing(doorId, clock.now(), why);
      return { result: null, news: [], isHouse: true };
    });
  };

  const sent = ({ seq }: Load, { networkId, step: first, why }: Delivery) => {
    const known = store.deliveries.bySeq(seq);
    if (!known) return { result: null, news: [] };
    const isWellAgain = store.doors.health(known.doorId).failingSince !== null;
    store.doors.well(known.doorId);
    const reports: { step: Step; why: string | null }[] = [
      { step: first, why: why ?? null },
      ...store.deliveries.takeEarly(known.doorId, networkId),
    ];
    const furthest = reports.reduce((a, b) => (rank[b.step] > rank[a.step] ? b : a));
    const { step: far, why: reason } = furthest;
    // Tried again after it was given up, it is on its way all the same.
    const from = known.step === 'failed' ? { ...known, step: 'waiting' as const } : known;
    const news = step(from, { networkId, step: far, why: reason });
    return { result: null, news, isHouse: isWellAgain };
  };

  const failed = ({ seq }: Load, why: string) => {
    const known = store.deliveries.bySeq(seq);
    if (!known) return { result: null, news: [] };
    store.doors.failing(known.doorId, clock.now(), why);
    const { networkId } = known;
    return { result: null, news: step(known, { networkId, step: 'failed', why }) };
  };

  const kind: JobKind<Load, Delivery> = {
    name: 'deliver',
    atOnce: 8,
    leaseMs: 60_000,
    triesMost: 12,
    firstWaitMs: 2_000,
    longestWaitMs: 15 * 60_000,
    do: async (load, { key, signal }) => {
      try {
        return await send(load, key, signal);
      } catch (error) {
        if (error instanceof JobFailed) await noteFailing(load, error.why);
        throw error;
      }
    },
    note: sent,
    buried: failed,
  };

  return {
    kind,
    /** An answer goes out: by its door, where that has to carry it. Call in the transaction that writes it. */
    begin: (entry: Entry, thread: ThreadRecord): void => {
      if (!registry.at(thread.doorId)?.isCarried) return;
      store.deliveries.begin(entry.seq, thread.doorId);
      const load: Load = { seq: entry.seq };
      const key = `deliver ${entry.seq}`;
      store.jobs.add({ key, kind: kind.name, load, notBefore: clock.now() }, clock.now());
    },
    /** A network says what became of a message; also before it has said which one that is. */
    report: (doorId: string, { networkId, step: far, why }: Delivery) =>
      write((): Written<null> => {
        const next = { networkId, step: far, why: why ?? null };
        const known = store.deliveries.byNetwork(doorId, networkId);
        if (known) return { result: null, news: step(known, next) };
        store.deliveries.keepEarly({ doorId, ...next }, clock.now());
        return { result: null, news: [] };
      }),
    /** Forgets what was said of messages that never were. */
    tidy: (): void => store.deliveries.dropEarlyBefore(clock.now() - DAY_MS),
  };
};

export type Delivering = ReturnType<typeof createDelivering>;
