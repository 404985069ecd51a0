import type { Delivery, Outbound } from '@porch/contract/doors';
import type { Entry, Step } from '@porch/core/conversation';
import { goAsLinks, windowEnd } from '@porch/core/routes';
import { allFiles, wholeText } from '@porch/core/shelf/plain';
import type { Clock } from '../clock';
import type { Written } from '../inbox/batch';
import type { Persons } from '../inbox/persons';
import type { Record } from '../inbox/record';
import { JobFailed, type JobKind } from '../jobs/worker';
import type { News } from '../live/hub';
import { newId } from '../security/tokens';
import type { DeliveryRecord, DoorRecord, Store, ThreadRecord } from '../store';
import { isOfDoor } from './answers';
import type { Failing } from './failing';
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

/** Among so many entries it is looked for what has not arrived. */
const LOOKED_AT_MOST = 80;

const DAY_MS = 24 * 3_600_000;
/** An answer that comes later than this is worth nothing, where its network sets no shorter time. */
const WORTH_MS = 3 * DAY_MS;
/** A network is asked so often whether it works again. */
const AGAIN_LONGEST_MS = 60_000;

/** So long a network may take with one message, where its door says nothing else. */
const SEND_LONGEST_MS = 60_000;

/** What somebody of the team has to mend; all else passes by itself. */
const toMend: ReadonlySet<string> = new Set([
  'key-refused',
  'key-missing',
  'secret-sealed',
  'mail-not-set',
  'mail-sign-in',
  'mail-encryption',
]);
const needsSomebody = (why: string): boolean => toMend.has(why);

/** What is said to one person at one door leaves in the order in which it was said. */
const laneOf = (doorId: string, address: string): string => `deliver ${doorId} ${address}`;

/** Carries out by doors what is said, and notes of each message how far it has come. */
export const createDelivering = (services: {
  store: Store;
  clock: Clock;
  record: Record;
  failing: Failing;
  registry: Registry;
  persons: Pick<Persons, 'standing'>;
  /** Where whoever has the link fetches a file; null where none can be made. */
  fileLink: (fileId: string) => string | null;
}) => {
  const { store, clock, record, failing, registry, persons, fileLink } = services;

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

  /** What of an answer a network carries as it is; the files that it does not are links in the text. */
  const carried = (door: DoorRecord, { text, files }: Pick<Outbound, 'text' | 'files'>) => {
    const can = registry.canOf(door);
    if (can && !goAsLinks(can, files)) return { text, files };
    const links = files.map(({ id }) => {
      const link = fileLink(id);
      if (link === null) throw new JobFailed('secret-sealed');
      return link;
    });
    return { text: [text, ...links].filter(Boolean).join('\n'), files: [] };
  };

  /** Whether somebody wants nothing more by a door; also where what goes out by it was said at another one. */
  const hasStopped = (doorId: string, address: string): boolean => {
    const thread = store.threads.byWriter({ doorId, address });
    const talk = thread && persons.standing(thread.id);
    return talk?.threads.some((one) => one.threadId === thread?.id && one.isStopped) ?? false;
  };

  const send = async ({ seq }: Load, key: string, signal: AbortSignal): Promise<Delivery> => {
    const entry = store.entries.bySeq(seq);
    const thread = entry?.threadId ? store.threads.byId(entry.threadId) : null;
    // By whichever door it was to go when it was said.
    const door = store.doors.byId(store.deliveries.bySeq(seq)?.doorId ?? '');
    const kind = door && registry.kindOf(door);
    if (entry?.kind !== 'team-said' || !thread || !door || !kind?.send) {
      throw new JobFailed('door-unknown', true);
    }
    // It was closed after this was said: nothing goes out by a closed door.
    if (door.closedAt !== null) throw new JobFailed('door-closed', true);
    if (hasStopped(door.id, thread.address)) throw new JobFailed('person-stopped', true);
    const said = { text: wholeText(entry), files: allFiles(entry) };
    const outbound = { key, to: thread.address, ...carried(door, said) };
    return kind.send({ door, secret: registry.secretOf(door), outbound, signal });
  };

  const sent = ({ seq }: Load, { networkId, step: first, why }: Delivery) => {
    const known = store.deliveries.bySeq(seq);
    if (!known) return { result: null, news: [] };
    const isWellAgain = failing.wellNow(known.doorId, kind.name);
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
    const { doorId, networkId } = known;
    if (isOfDoor(why)) store.doors.failing(doorId, clock.now(), why);
    return { result: null, news: step(known, { networkId, step: 'failed', why }) };
  };

  /** It has to wait: those who look at it read why, from the first try on. */
  const heldUp = ({ seq }: Load, why: string) => {
    const known = store.deliveries.bySeq(seq);
    const entry = store.entries.bySeq(seq);
    const conversation = persons.standing(entry?.threadId ?? '');
    if (known?.step !== 'waiting' || !entry || !conversation) return { result: null, news: [] };
    // A network that fails now so and now otherwise for days is told of once.
    const isTold = known.why !== null && needsSomebody(known.why) === needsSomebody(why);
    if (isTold) return { result: null, news: [] };
    store.deliveries.update({ ...known, why });
    const happening = { kind: 'receipt' as const, of: seq, step: 'waiting' as const, why };
    const recording = { id: newId(), happening };
    return { result: null, news: [record.add(conversation, entry.threadId, [recording])] };
  };

  /** Until their network lets nothing through any more, and never longer than anybody waits for an answer. */
  const worth = ({ seq }: Load, madeAt: number) => {
    const until = madeAt + WORTH_MS;
    const doorId = store.deliveries.bySeq(seq)?.doorId ?? '';
    const threadId = store.entries.bySeq(seq)?.threadId ?? '';
    const thread = persons.standing(threadId)?.threads.find((one) => one.threadId === threadId);
    const windowMs = registry.at(doorId)?.can.windowMs ?? null;
    const end = windowEnd(thread?.heardAt ?? null, windowMs);
    if (end === null || end >= until) return { until, why: null };
    return { until: end, why: 'window-closed' };
  };

  const kind: JobKind<Load, Delivery> = {
    name: 'deliver',
    atOnce: 12,
    atOnceOfOne: 4,
    leaseMs: ({ seq }) => {
      const door = store.doors.byId(store.deliveries.bySeq(seq)?.doorId ?? '');
      return (door && registry.kindOf(door)?.sendLongestMs) ?? SEND_LONGEST_MS;
    },
    triesMost: 12,
    worth,
    firstWaitMs: 2_000,
    longestWaitMs: AGAIN_LONGEST_MS,
    later: heldUp,
    do: (load, { key, signal }) => {
      const { doorId = '' } = store.deliveries.bySeq(load.seq) ?? {};
      return failing.noted(doorId, () => send(load, key, signal));
    },
    note: sent,
    buried: failed,
  };

  return {
    kind,
    /** An answer goes out: by its door, where that has to carry it. Call in the transaction that writes it. */
    begin: (entry: Entry, thread: ThreadRecord): void => {
      const door = store.doors.byId(thread.doorId);
      const carrier = door && registry.carrierOf(door);
      if (!carrier) return;
      store.deliveries.begin(entry.seq, carrier.id);
      const load: Load = { seq: entry.seq };
      const key = `deliver ${entry.seq}`;
      const lane = laneOf(carrier.id, thread.address);
      // What waits before it is tried now: somebody is there who cares.
      store.jobs.hurryLane(lane, clock.now());
      store.jobs.add(
        { key, kind: kind.name, load, notBefore: clock.now(), lane, belongs: carrier.id },
        clock.now(),
      );
    },
    /** Tries once more to carry out what was given up. Call in a transaction; where it was not, nothing happens. */
    again: (entry: Entry): Written<null> => {
      const known = store.deliveries.bySeq(entry.seq);
      const conversation = persons.standing(entry.threadId ?? '');
      if (known?.step !== 'failed' || !conversation) return { result: null, news: [] };
      store.deliveries.update({ ...known, networkId: null, step: 'waiting', why: null });
      const load: Load = { seq: entry.seq };
      // What a network took and lost is another message to it; what it never took is the same one.
      const key = `deliver ${entry.seq}${known.networkId === null ? '' : ` ${known.networkId}`}`;
      const address = store.threads.byId(entry.threadId ?? '')?.address ?? '';
      const lane = laneOf(known.doorId, address);
      const job = { key, kind: kind.name, load, notBefore: clock.now(), lane };
      store.jobs.schedule({ ...job, belongs: known.doorId, waitMs: 0 }, clock.now());
      const happening = { kind: 'receipt' as const, of: entry.seq, step: 'waiting' as const };
      const recording = { id: newId(), happening };
      return { result: null, news: [record.add(conversation, entry.threadId, [recording])] };
    },
    /** A network says what became of a message; also before it has said which one that is. */
    reportNow: (doorId: string, { networkId, step: far, why }: Delivery): Written<null> => {
      const next = { networkId, step: far, why: why ?? null };
      const known = store.deliveries.byNetwork(doorId, networkId);
      if (known) return { result: null, news: step(known, next) };
      store.deliveries.keepEarly({ doorId, ...next }, clock.now());
      return { result: null, news: [] };
    },
    /** What was last said to a writer has not arrived, as is told of nothing in particular. */
    undelivered: (threadId: string, why: string): News[] => {
      const said = store.entries.threadBefore(threadId, Number.MAX_SAFE_INTEGER, LOOKED_AT_MOST);
      const known = said
        .map(({ seq }) => store.deliveries.bySeq(seq))
        .filter((one) => one !== null && one.step !== 'failed')
        .at(-1);
      return known ? step(known, { networkId: known.networkId, step: 'failed', why }) : [];
    },
    /** Forgets what was said of messages that never were. */
    tidy: (): void => store.deliveries.dropEarlyBefore(clock.now() - DAY_MS),
  };
};

export type Delivering = ReturnType<typeof createDelivering>;
