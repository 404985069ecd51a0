import type { Clock } from '../clock';
import type { JobKind } from '../jobs/worker';
import { newId } from '../security/tokens';
import type { Returning } from './due';
import type { Persons } from './persons';
import type { Record } from './record';

/** Brings back what was put by, when its time has come. Whatever was done with it meanwhile counts. */
export const returning = (services: {
  clock: Clock;
  persons: Persons;
  record: Record;
}): JobKind<Returning> => ({
  name: 'return',
  atOnce: 100,
  leaseMs: 60_000,
  triesMost: 10,
  firstWaitMs: 1_000,
  longestWaitMs: 60_000,
  note: ({ conversationId }) => {
    const conversation = services.persons.standing(conversationId);
    const until = conversation?.state.putByUntil ?? null;
    if (!conversation || until === null || until > services.clock.now()) {
      return { result: null, news: [] };
    }
    const recording = { id: newId(), happening: { kind: 'returned' as const } };
    return { result: null, news: [services.record.add(conversation, null, [recording])] };
  },
});
