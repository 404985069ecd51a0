import { type ChildProcess, spawn } from 'node:child_process';
import { once } from 'node:events';
import type { Answer, Question, Reply } from '../houses/wire';

/** A house or a street that takes requests, on a port of its own. */
export interface Running {
  port: number;
  /** What the server printed for whoever sets it up; null where there is nothing to set up. */
  firstCode: string | null;
  /** Sets its clock; resolves once it has done what is due. */
  setClock(at: number): Promise<void>;
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

/** Starts the server in a process of its own and waits until it says on which port it listens. */
export const startServer = async (env: Record<string, string>): Promise<Running> => {
  const script = 'server/dist/main.js';
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
    setClock: async (at) => {
      const done = once(child, 'message');
      child.send({ setClock: at });
      await done;
    },
    kill: () => end(child, 'SIGKILL'),
    stop: () => end(child, 'SIGTERM'),
  };
};

/**
 * One process in which the houses and streets of many tests stand, one test's after the other's. It ends with whoever
 * started it.
 */
export class Houses {
  private readonly child = spawn('node', ['e2e/dist/main.js'], {
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
  });
  private readonly waiting = new Map<number, (reply: Reply) => void>();
  private asked = 0;

  constructor() {
    this.child.on('message', (reply: Reply) => {
      this.waiting.get(reply.id)?.(reply);
      this.waiting.delete(reply.id);
    });
    this.child.once('exit', (code) => {
      for (const [id, settle] of this.waiting) settle({ id, failed: `it ended with ${code}` });
    });
  }

  private async ask(question: Question): Promise<Answer> {
    this.asked += 1;
    const id = this.asked;
    const reply = await new Promise<Reply>((resolve) => {
      this.waiting.set(id, resolve);
      this.child.send({ id, question });
    });
    if ('failed' in reply) throw new Error(`${question.ask} ${question.key}: ${reply.failed}`);
    return reply.answer;
  }

  /** Opens one with an environment, as a process of its own would have it. */
  async open(what: 'house' | 'street', env: Record<string, string>): Promise<Running> {
    const key = `${what} ${this.asked}`;
    const opened = await this.ask({ ask: 'open', key, what, env });
    if (!opened) throw new Error(`${what}: it did not say where it is`);
    let isOpen = true;
    return {
      ...opened,
      setClock: async (at) => {
        await this.ask({ ask: 'clock', key, at });
      },
      kill: async () => {
        throw new Error('others stand in the same process: tag the test with ownServer');
      },
      stop: async () => {
        if (!isOpen) return;
        isOpen = false;
        await this.ask({ ask: 'close', key, at: 0 });
      },
    };
  }
}
