import { fork } from 'node:child_process';
import type { StartApart } from './lane';

/** Starts processes of their own for jobs, from a built script, each with so much memory at most. */
export const apartProcess =
  <Job, Done>(script: string, memoryMb?: number): StartApart<Job, Done> =>
  () => {
    const execArgv = memoryMb === undefined ? [] : [`--max-old-space-size=${memoryMb}`];
    // What it says while it dies is nobody's business, and may quote what a stranger sent.
    const child = fork(script, {
      serialization: 'advanced',
      execArgv,
      stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
    });
    child.unref();
    child.channel?.unref();
    let settle: (done: Done | null) => void = () => {};
    child.on('message', (done) => settle(done as Done));
    // Ended by us, by a crash or for want of memory: the job at hand came to nothing.
    child.on('exit', () => settle(null));
    child.on('error', () => settle(null));
    return {
      do: (job) =>
        new Promise((resolve) => {
          settle = resolve;
          child.send(job as object, (error) => error && resolve(null));
        }),
      end: () => child.kill('SIGKILL'),
    };
  };
