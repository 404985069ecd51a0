import { LETTER_MOST } from '@porch/contract/limits';
import type { FromTeam, LetterToTeam, ToTeam } from '@porch/contract/team';
import { type Means, openCarrier } from '@porch/core/carrier';
import { api } from './api';

export interface TeamSocket {
  send(message: FromTeam): void;
  close(): void;
}

/** What is new in the welcome of a later letter: nothing, most of the time. */
const newsOf = (message: ToTeam): ToTeam[] => {
  if (message.say !== 'welcome' || message.isTooMuch) return [message];
  const { entries, rows, counts, seq, lamp, now } = message;
  return [
    ...(entries.length > 0 ? [{ say: 'entries', entries, rows, counts, seq } as const] : []),
    { say: 'lamp', lamp, now },
  ];
};

const means: Means<FromTeam, ToTeam> = {
  newSocket: () => new WebSocket(`${location.origin.replace('http', 'ws')}/api/live`),
  post: (says) =>
    api.send<LetterToTeam>('POST', '/api/letters', { says }).then(
      (answer) => answer.says,
      () => null,
    ),
  after: (ms, deed) => {
    const timer = setTimeout(deed, ms);
    return () => clearTimeout(timer);
  },
  now: Date.now,
  random: Math.random,
};

/** The device's line to the server, which comes back by itself and says hello anew each time. */
export const openTeamSocket = (options: {
  since: () => number;
  hear: (message: ToTeam) => void;
  changed: (isConnected: boolean) => void;
}): TeamSocket => {
  const carrier = openCarrier(means, {
    hello: (): FromTeam => ({ do: 'hello', since: options.since() }),
    pulse: { do: 'pulse' },
    lettersMost: LETTER_MOST,
    newsOf,
    hear: options.hear,
    changed: options.changed,
  });
  const look = (): void => {
    if (document.visibilityState === 'visible') carrier.wake();
  };
  window.addEventListener('online', carrier.wake);
  window.addEventListener('offline', carrier.sleep);
  document.addEventListener('visibilitychange', look);
  return {
    send: (message) => void carrier.send(message),
    close: () => {
      window.removeEventListener('online', carrier.wake);
      window.removeEventListener('offline', carrier.sleep);
      document.removeEventListener('visibilitychange', look);
      carrier.close();
    },
  };
};
