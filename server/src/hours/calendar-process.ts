import { fork } from 'node:child_process';
import type { AskCalendar, Calendar } from './calendar';

const LONGEST_MS = 20_000;

/** Asks in a process of its own, from a built script. */
export const calendarProcess =
  (script: string): AskCalendar =>
  (asked) =>
    new Promise((resolve) => {
      const child = fork(script);
      child.unref();
      child.channel?.unref();
      const timer = setTimeout(() => child.kill('SIGKILL'), LONGEST_MS);
      const settle = (calendar: Calendar | null): void => {
        clearTimeout(timer);
        resolve(calendar);
      };
      child.on('message', (calendar: Calendar | null) => settle(calendar));
      child.on('exit', () => settle(null));
      child.on('error', () => settle(null));
      child.send(asked, (error) => error && settle(null));
    });
