import { join } from 'node:path';
import type { Clock } from './clock';
import { createStore, openDatabase, type Store } from './store';
import { holdFolder } from './store/hold';
import { damageBeside, type LogDamage } from './store/log-check';

export interface OpenFolder {
  store: Store;
  /** What was found wrong with the log that the last run left; null for nothing. */
  damage: LogDamage | null;
  close(): void;
}

/** What is said of a damaged log to whoever looks after the server. */
export const damageInWords = ({ readFrames, lostFrames }: LogDamage): string =>
  `The write-ahead log was damaged behind page ${readFrames}; ${lostFrames} pages could not be read.`;

/** Opens a data folder for the one process that may write it. Throws in plain words when that cannot be. */
export const openDataFolder = (dataDir: string, clock: Clock): OpenFolder => {
  const letGo = holdFolder(dataDir);
  try {
    const path = join(dataDir, 'porch.sqlite');
    const damage = damageBeside(path);
    const store = createStore(openDatabase(path, clock.now()));
    if (damage) {
      const detail = damageInWords(damage);
      store.findings.write({ kind: 'log-damaged', at: clock.now(), detail });
    }
    return {
      store,
      damage,
      close: () => {
        store.close();
        letGo();
      },
    };
  } catch (error) {
    letGo();
    throw error;
  }
};
