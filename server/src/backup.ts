import { join } from 'node:path';
import { backUp } from './store/backup';

/** npm run backup [-- FILE]: a checked copy of everything, also while the server runs. */
const start = async (): Promise<void> => {
  const dataDir = process.env.DATA_DIR ?? '.data';
  const stamp = new Date().toISOString().slice(0, 19).replaceAll(':', '-');
  const to = process.argv[2] ?? join(dataDir, 'backups', `porch-${stamp}.sqlite`);
  const { conversations, entries, bytes } = await backUp(join(dataDir, 'porch.sqlite'), to);
  process.stdout.write(
    `Backed up and checked: ${to}\n  ${conversations} conversations, ${entries} entries, ${bytes} bytes\n`,
  );
};

start().catch((error) => {
  process.stderr.write(`Nothing was backed up: ${error.message}\n`);
  process.exit(1);
});
