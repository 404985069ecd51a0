import type { Entry, HeldBack } from '@porch/core/conversation';
import { askedId } from '@porch/core/promises';
import { summary } from '@porch/core/text';
import type { Clock } from '../clock';
import type { Persons } from '../inbox/persons';
import type { Follow, Record, Recording } from '../inbox/record';
import type { JobKind } from '../jobs/worker';
import { newId } from '../security/tokens';
import type { HeldMailRecord, Store } from '../store';
import type { ReadMail } from './read-mail';
import type { MailReader } from './reader';

/** What a job that lets in a mail which was held back carries. */
export interface HeldMailJob {
  /** Of the entry that asked. */
  id: string;
}

const DAY_MS = 24 * 3_600_000;
/** So long it is asked whose a mail is. */
const HELD_KEPT_MS = 60 * DAY_MS;
/** So many are asked about at once in a thread; whoever has an answering address could send without end. */
const HELD_MOST = 5;
const BYTES_HELD_MOST = 200_000_000;

/** Mails from another address than we wrote to: the team is asked whether they are theirs. */
export const createHeldMails = (services: {
  store: Store;
  clock: Clock;
  persons: Persons;
  record: Record;
  reader: MailReader;
  passOn: (mail: ReadMail, threadId: string) => Promise<HeldBack | null>;
}) => {
  const { store, clock, persons, record, reader, passOn } = services;

  const others = ({ id, threadId, address }: HeldMailRecord): HeldMailRecord[] =>
    store.heldMails.openFrom(threadId, address).filter((one) => one.id !== id);

  const settle = (held: HeldMailRecord, isTheirs: boolean): void => {
    store.heldMails.settle(held.id, isTheirs);
    // Kept all the same: it may turn out to be theirs after all.
    if (!isTheirs) return;
    const load: HeldMailJob = { id: held.id };
    const job = { key: `held-mail ${held.id}`, kind: 'held-mail', load, notBefore: clock.now() };
    store.jobs.add(job, clock.now());
  };

  const answered = (entryId: string, memberId: string): Recording[] => {
    const owed = store.followUps.byId(askedId(entryId));
    if (!owed || owed.doneAt !== null) return [];
    return [{ id: newId(), happening: { kind: 'owed-done', of: owed.id, memberId } }];
  };

  /** What was said of one mail holds for its address: for what else waits, and for what comes. */
  const decided = ({ of, memberId, isTheirs }: Entry & { kind: 'held-decided' }): Recording[] => {
    const held = store.heldMails.byId(of);
    if (!held) return [];
    const also = others(held);
    store.heldMails.decide(held.threadId, held.address, isTheirs);
    for (const one of [held, ...also]) settle(one, isTheirs);
    return [
      ...answered(of, memberId),
      ...also.flatMap(({ id }): Recording[] => [
        { id: newId(), happening: { kind: 'held-decided', of: id, memberId, isTheirs } },
        ...answered(id, memberId),
      ]),
    ];
  };

  const follow: Follow = (_was, _now, entries) =>
    entries.flatMap((entry) => (entry.kind === 'held-decided' ? decided(entry) : []));

  const kind: JobKind<HeldMailJob, HeldBack | null> = {
    name: 'held-mail',
    atOnce: 2,
    leaseMs: 90_000,
    triesMost: 10,
    firstWaitMs: 10_000,
    longestWaitMs: 3_600_000,
    do: async ({ id }) => {
      const held = store.heldMails.byId(id);
      const bytes = store.heldMails.bytesOf(id);
      return held && bytes ? passOn(await reader.read(bytes, held.address), held.threadId) : null;
    },
    note: ({ id }, why) => {
      const held = store.heldMails.byId(id);
      const conversation = held && persons.standing(held.threadId);
      store.heldMails.drop(id);
      if (!held || !conversation || why === null) return { result: null, news: [] };
      const { address: from } = held;
      const happening = { kind: 'held-back' as const, why, from, isVisitors: true };
      return { result: null, news: [record.add(conversation, null, [{ id: newId(), happening }])] };
    },
    buried: () => ({ result: null, news: [] }),
  };

  return {
    kind,
    follow,
    /** Keeps a mail until it is said whose it is; gives what the team is shown of it, null where it is not asked. */
    ask: (entryId: string, threadId: string, mail: ReadMail, bytes: Buffer): string | null => {
      const { isTheirs, countOf, bytesHeld, add } = store.heldMails;
      const isFull = countOf(threadId) >= HELD_MOST || bytesHeld() + bytes.length > BYTES_HELD_MOST;
      if (isFull || !mail.from || isTheirs(threadId, mail.from) !== null) return null;
      add({ id: entryId, threadId, address: mail.from, at: clock.now() }, bytes);
      return summary(mail.said, []) || mail.attached.map(({ name }) => name).join(', ');
    },
    tidy: (): void => store.heldMails.dropBefore(clock.now() - HELD_KEPT_MS),
  };
};

export type HeldMails = ReturnType<typeof createHeldMails>;
