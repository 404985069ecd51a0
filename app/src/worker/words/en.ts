import type { AlertDeed, Cause } from '@porch/core/ringing';
import { many } from '../../kit/many';

export const en = {
  /** Who rings, and at which door where there are several. */
  title: (who: string, door: string) => (door ? `${who} · ${door}` : who),
  hidden: 'Wrote to you. Open it to read.',
  more: (unread: number) => many(unread, 'unread message', 'unread messages'),
  causes: {
    low: 'Their patience runs low.',
    again: 'Nobody has looked yet.',
    others: 'Nobody has looked yet. Can you?',
    note: 'Left while nobody is in.',
    owed: 'A follow-up is due.',
    window: 'They can be answered for less than an hour.',
    landed: 'Is on a page that you chose.',
    back: 'Is back on your website.',
  } satisfies Record<Exclude<Cause, 'first' | 'more'>, string> as Partial<Record<Cause, string>>,
  deeds: {
    open: 'Open',
    'short-reply': (reply: string) => reply,
    'back-soon': 'Back in 15 min',
    'put-by': 'Put by 1 hour',
  } satisfies Record<AlertDeed, string | ((reply: string) => string)>,
  trial: { title: 'Your doorbell works', body: 'This is how a ring arrives on this device.' },
  bare: { title: 'Somebody wrote', body: 'Open it to read.' },
  answered: (who: string) => (who ? `${who} has looked.` : 'Somebody has looked.'),
  waits: {
    title: 'Not sent yet',
    body: 'There is no signal. It is kept on this device and goes out by itself.',
  },
  refused: { title: 'This was not done', body: 'Open the conversation to see why.' },
};
