/** What may go wrong with a network: set by hand on its page. */
export const faults = [
  'none',
  'slow',
  'broken',
  'later',
  'wrong-mark',
  'twice',
  'out-of-order',
  'late-receipts',
  'no-receipts',
  'cut',
  'revoked',
  'window',
] as const;
export type Fault = (typeof faults)[number];

export const faultsInWords: Record<Fault, string> = {
  none: 'Works',
  slow: 'Takes eight seconds',
  broken: 'Answers with 500',
  later: 'Wants it later (429, Retry-After 5)',
  'wrong-mark': 'Proves itself by the wrong word',
  twice: 'Hands everything over twice',
  'out-of-order': 'Hands over in the wrong order',
  'late-receipts': 'Says 20 seconds later what became of a message',
  'no-receipts': 'Never says what became of a message',
  cut: 'Hangs up in mid-answer',
  revoked: 'Takes the key no more (401)',
  window: 'Closes the window early',
};

export const toFault = (said: unknown): Fault => faults.find((one) => one === said) ?? 'none';

export const SLOW_MS = 8_000;
export const LATE_MS = 20_000;
