import { fork } from 'node:child_process';
import type { StartDecoder } from './darkroom';
import type { Done } from './work';

/** Starts decoders as processes of their own, from a built script. */
export const decoderProcess =
  (script: string): StartDecoder =>
  () => {
    const child = fork(script, { serialization: 'advanced' });
    child.unref();
    child.channel?.unref();
    let settle: (done: Done | null) => void = () => {};
    child.on('message', (done: Done) => settle(done));
    // Ended by us, by a crash or for want of memory: the picture at hand could not be read.
    child.on('exit', () => settle(null));
    child.on('error', () => settle(null));
    return {
      develop: (job) =>
        new Promise((resolve) => {
          settle = resolve;
          child.send(job, (error) => error && resolve(null));
        }),
      end: () => child.kill('SIGKILL'),
    };
  };
