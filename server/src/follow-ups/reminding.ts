import type { Clock } from '../clock';
import type { Ringing } from '../doorbell/ringing';
import type { Persons } from '../inbox/persons';
import type { JobKind } from '../jobs/worker';
import type { Store } from '../store';
import type { Reminding } from './follow-ups';

/** Rings for what is owed when its time has come. What was done or put off meanwhile counts. */
export const reminding = (services: {
  store: Store;
  clock: Clock;
  persons: Persons;
  ringing: Ringing;
}): JobKind<Reminding> => ({
  name: 'remind',
  atOnce: 100,
  leaseMs: 60_000,
  triesMost: 10,
  firstWaitMs: 1_000,
  longestWaitMs: 60_000,
  note: ({ followUpId, at }) => {
    const { store, clock, persons, ringing } = services;
    const followUp = store.followUps.byId(followUpId);
    const isDue = followUp?.doneAt === null && followUp.remindAt === at && at <= clock.now();
    const conversation = isDue ? persons.standing(followUp.conversationId) : null;
    if (followUp && conversation) ringing.remind(conversation, followUp);
    return { result: null, news: [] };
  },
});
