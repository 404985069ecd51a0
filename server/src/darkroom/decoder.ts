import { setPriority } from 'node:os';
import sharp from 'sharp';
import { develop, type Job } from './work';

/** A process of its own for one picture after the other: it can be ended in the middle of one. */
const LOW_PRIORITY = 10;
setPriority(LOW_PRIORITY);
// One thread: the other cores are for whoever waits for an answer.
sharp.concurrency(1);
sharp.cache(false);

process.on('message', async (job: Job) => {
  process.send?.(await develop(job));
});
process.on('disconnect', () => process.exit(0));
