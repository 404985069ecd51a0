import { setPriority } from 'node:os';
import { bareMail, type MailJob } from './read-mail';
import { readJob } from './reading';

/** A process of its own for one mail after the other: it can be ended in the middle of one. */
const LOW_PRIORITY = 5;
setPriority(LOW_PRIORITY);

process.on('message', async (job: MailJob) => {
  // What a parser throws is one more way of not being readable.
  process.send?.(await readJob(job).catch(() => bareMail(job.bytes)));
});
process.on('disconnect', () => process.exit(0));
