import type { Persons } from '../inbox/persons';
import type { JobKind } from '../jobs/worker';
import type { BeginMail, Ringing, RingOnJob } from './ringing';

/** Rings on while nobody looks: again, others, by mail. What was done meanwhile counts. */
export const ringingOn = (services: {
  persons: Persons;
  ringing: Ringing;
  beginMail: BeginMail;
}): JobKind<RingOnJob> => ({
  name: 'ring-on',
  atOnce: 100,
  leaseMs: 60_000,
  triesMost: 10,
  firstWaitMs: 1_000,
  longestWaitMs: 60_000,
  note: (job) => {
    const { persons, ringing, beginMail } = services;
    const conversation = persons.standing(job.talk);
    if (conversation) ringing.ringOn(job, conversation, beginMail);
    return { result: null, news: [] };
  },
});
