import { LETTER_MOST } from '@porch/contract/limits';
import type { FromTeam, LetterToTeam, ToTeam } from '@porch/contract/live';
import { type Means, openCarrier } from '@porch/core/carrier';
import { api } from '../session/api';

export interface TeamSocket {
  send(message: FromTeam): void;
  close(): void;
}

/** Each letter is answered with a whole welcome; all but the first is digested into what is new. */
export const createDigest = () => {
  let houseMark = '';
  const newsOf = (message: ToTeam): ToTeam[] => {
    if (message.say !== 'welcome') return [message];
    const { entries, rows, counts, seq, last, lamp, now } = message;
    const house = message.houseMark === houseMark ? [] : [{ say: 'house' } as const];
    houseMark = message.houseMark;
    if (message.isTooMuch) return [message, ...house];
    return [
      ...(entries.length > 0
        ? [{ say: 'entries', entries, rows, counts, seq, last } as const]
        : []),
      { say: 'lamp', lamp, now },
      ...house,
    ];
  };
  return {
    newsOf,
    /** What is heard whole: a first welcome, from which on the house is compared. */
    note: (message: ToTeam): void => {
      if (message.say === 'welcome') houseMark = message.houseMark;
    },
  };
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

/** The device's connection to the server, which comes back by itself and says hello anew each time. */
export const openTeamSocket = (options: {
  since: () => { seq: number; last: string | null };
  hear: (message: ToTeam) => void;
  changed: (isConnected: boolean) => void;
}): TeamSocket => {
  const digest = createDigest();
  const carrier = openCarrier(means, {
    hello: (): FromTeam => {
      const { seq, last } = options.since();
      return { do: 'hello', since: seq, last };
    },
    pulse: { do: 'pulse' },
    lettersMost: LETTER_MOST,
    newsOf: digest.newsOf,
    hear: (message) => {
      digest.note(message);
      options.hear(message);
    },
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
