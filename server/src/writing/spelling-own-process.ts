import { createRequire } from 'node:module';
import { setPriority } from 'node:os';
import { type Asked, createSpeller } from './speller';

/** A process of its own for dictionaries: they take a second and much room, and nobody who writes waits for that. */
const LOW_PRIORITY = 10;
setPriority(LOW_PRIORITY);
const spell = createSpeller(createRequire(import.meta.url).resolve);

process.on('message', async (asked: Asked) => {
  process.send?.(await spell(asked).catch(() => null));
});
process.on('disconnect', () => process.exit(0));
