import { LETTER_MOST } from '@porch/contract/limits';
import type { FromVisitor, LetterToVisitor, ToVisitor } from '@porch/contract/visitor';
import { type Carrier, type Means, openCarrier } from '@porch/core/carrier';

export type Connection = Pick<Carrier<FromVisitor>, 'send' | 'anew'>;

/** What is new in the welcome of a later letter. */
export const newsOf = (message: ToVisitor): ToVisitor[] => {
  if (message.say !== 'welcome' || !message.continues) return [message];
  const { entries, seq, last, reached, lamp, usual, opens, now } = message;
  return [
    ...(entries.length > 0 ? [{ say: 'entries', entries, seq, last } as const] : []),
    { say: 'reached', reached },
    { say: 'lamp', lamp, usual, opens, now },
  ];
};

const post = async (url: string, says: FromVisitor[]): Promise<ToVisitor[] | null> => {
  try {
    const response = await fetch(url, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ says }),
    });
    const answer = response.ok ? ((await response.json()) as LetterToVisitor) : null;
    return answer?.says.some(({ say }) => say === 'welcome') ? answer.says : null;
  } catch {
    return null;
  }
};

const meansOf = (door: string): Means<FromVisitor, ToVisitor> => ({
  newSocket: () => new WebSocket(`${location.origin.replace('http', 'ws')}/door/${door}/live`),
  post: (says) => post(`/door/${door}/letters`, says),
  after: (ms, deed) => {
    const timer = setTimeout(deed, ms);
    return () => clearTimeout(timer);
  },
  now: Date.now,
  random: Math.random,
});

/** The panel's connection to the server. */
export const connect = (options: {
  door: string;
  hello: () => FromVisitor;
  hear: (message: ToVisitor) => void;
  changed: (isOpen: boolean) => void;
}): Connection => {
  const carrier = openCarrier(meansOf(options.door), {
    ...options,
    pulse: { do: 'pulse' },
    lettersMost: LETTER_MOST,
    newsOf,
  });
  addEventListener('online', carrier.wake);
  addEventListener('offline', carrier.sleep);
  document.addEventListener('visibilitychange', () => {
    if (document.visibilityState === 'visible') carrier.wake();
  });
  return carrier;
};
