import { type ChildProcess, spawn } from 'node:child_process';
import { once } from 'node:events';

/** A process of the project under test, on a port of its own. */
export interface Running {
  port: number;
  /** What the server printed for whoever sets it up; null where there is nothing to set up. */
  firstCode: string | null;
  child: ChildProcess;
  /** Ends it as a power cut would. */
  kill(): Promise<void>;
  stop(): Promise<void>;
}

const end = async (child: ChildProcess, signal: NodeJS.Signals): Promise<void> => {
  if (child.exitCode !== null || child.signalCode !== null) return;
  const gone = once(child, 'exit');
  child.kill(signal);
  await gone;
};

/** Starts a built script and waits until it says on which port it listens. */
export const launch = async (script: string, env: Record<string, string>): Promise<Running> => {
  const child = spawn('node', [script], {
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    env: { ...process.env, ...env },
  });
  const [message] = (await Promise.race([
    once(child, 'message'),
    once(child, 'exit').then(() => {
      throw new Error(`${script} ended before it listened`);
    }),
  ])) as [{ listening: number; firstCode?: string | null }];
  return {
    port: message.listening,
    firstCode: message.firstCode ?? null,
    child,
    kill: () => end(child, 'SIGKILL'),
    stop: () => end(child, 'SIGTERM'),
  };
};
