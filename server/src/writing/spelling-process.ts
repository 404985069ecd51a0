import { type ChildProcess, fork } from 'node:child_process';
import type { Spell, Unknown } from './speller';

const LONGEST_MS = 20_000;
/** Whoever writes asks every few seconds; after so long nobody writes any more. */
const IDLE_MS = 60_000;

/** Asks in a process of its own, from a built script, one after the other. It ends when nobody asks any more. */
export const spellingProcess = (script: string): Spell & { end(): void } => {
  let child: ChildProcess | null = null;
  let before: Promise<unknown> = Promise.resolve();
  let idle: ReturnType<typeof setTimeout> | undefined;

  const end = (): void => {
    clearTimeout(idle);
    child?.kill('SIGKILL');
    child = null;
  };

  const start = (): ChildProcess => {
    const started = fork(script);
    started.unref();
    started.channel?.unref();
    const gone = (): void => {
      if (child === started) child = null;
    };
    started.on('exit', gone);
    started.on('error', gone);
    return started;
  };

  const ask: Spell = (asked) =>
    new Promise((resolve) => {
      clearTimeout(idle);
      child ??= start();
      // One that ended before has nothing to say of this.
      const mine = child;
      const timer = setTimeout(end, LONGEST_MS);
      const settle = (unknown: Unknown[] | null): void => {
        clearTimeout(timer);
        for (const event of ['message', 'exit', 'error']) mine.removeListener(event, settled);
        idle = setTimeout(end, IDLE_MS).unref();
        resolve(unknown);
      };
      const settled = (unknown: unknown): void =>
        settle(Array.isArray(unknown) ? (unknown as Unknown[]) : null);
      for (const event of ['message', 'exit', 'error']) mine.on(event, settled);
      mine.send(asked, (error) => error && settle(null));
    });

  const spell: Spell = (asked) => {
    const asking = before.then(() => ask(asked));
    before = asking;
    return asking;
  };
  return Object.assign(spell, { end });
};
