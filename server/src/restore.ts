import { join } from 'node:path';
import { restore } from './store/backup';

/** npm run restore -- FILE: puts a backup in the place of the data; what was there stays beside it. */
const start = (): void => {
  const from = process.argv[2];
  if (!from) throw new Error('say which backup: npm run restore -- FILE');
  const dataDir = process.env.DATA_DIR ?? '.data';
  const stamp = new Date().toISOString().slice(0, 19).replaceAll(':', '-');
  const { aside, conversations, entries } = restore(dataDir, from, stamp);
  process.stdout.write(`Restored: ${conversations} conversations, ${entries} entries.\n`);
  if (aside) process.stdout.write(`  What was there before: ${join(dataDir, aside)}\n`);
};

try {
  start();
} catch (error) {
  process.stderr.write(`Nothing was restored: ${(error as Error).message}\n`);
  process.exit(1);
}
