import { fileURLToPath } from 'node:url';
import { handClock } from '@porch/server/clock';
import { openHouse } from '@porch/server/house';
import { fromEnvironment, toSettings } from '@porch/server/settings';
import { openStreet } from '@porch/street/street';
import type { Answer, Question } from './wire';

/**
 * Opens houses and streets, one test's after the other's, in one process: each has data, ports and a clock of its own,
 * and none has to be read and compiled anew. Who ends a server as a power cut does needs a process of its own.
 */
interface Standing {
  setClock(at: number): Promise<void>;
  close(): Promise<void>;
}

const standing = new Map<string, Standing>();
const beside = fileURLToPath(new URL('../../server/dist/', import.meta.url));

const open = async ({ key, what, env }: Question & { ask: 'open' }): Promise<Answer> => {
  const clock = handClock(Number(env.CLOCK_START));
  if (what === 'street') {
    const { port, close } = await openStreet(env, clock.now);
    standing.set(key, { setClock: async (at) => clock.set(at), close });
    return { port, firstCode: null };
  }
  const settings = toSettings(fromEnvironment(env));
  const { port, firstCode, tick, close } = await openHouse(settings, { clock, beside });
  standing.set(key, {
    setClock: async (at) => {
      clock.set(at);
      await tick();
    },
    close,
  });
  return { port, firstCode };
};

const answer = async (question: Question): Promise<Answer> => {
  if (question.ask === 'open') return open(question);
  const one = standing.get(question.key);
  if (!one) throw new Error(`nothing stands there: ${question.key}`);
  if (question.ask === 'clock') await one.setClock(question.at);
  else {
    standing.delete(question.key);
    await one.close();
  }
  return null;
};

process.on('message', async ({ id, question }: { id: number; question: Question }) => {
  try {
    process.send?.({ id, answer: await answer(question) });
  } catch (error) {
    process.send?.({ id, failed: error instanceof Error ? error.message : String(error) });
  }
});
process.on('disconnect', () => process.exit(0));
