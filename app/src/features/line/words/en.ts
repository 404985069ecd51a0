import type { Group } from '@porch/core/conversation';
export const en = {
  label: 'The line',
  more: (left: number) => `Show more (${left} left)`,
  empty: 'Nobody is waiting',
  emptyMore:
    'When somebody writes on your website, they stand here, and their patience burns down beside their name.',
  emptyAction: 'Open your website door',
  unread: (count: number) => `${count} unread`,
  here: 'on the page now',
  cameBack: 'came back',
  unreached: 'not delivered',
  typing: 'is typing',
  selected: {
    bar: 'Selected conversations',
    count: (count: number) => (count === 1 ? '1 selected' : `${count} selected`),
    all: 'Select all',
    none: 'Select none',
    one: 'Select',
    end: 'Stop selecting',
  },
  groups: {
    waiting: 'Waiting',
    note: 'Left a note',
    answered: 'Answered',
    'put-by': 'Put by',
    'wrapped-up': 'Wrapped up',
  } satisfies Record<Group, string>,
  groupsMore: {
    waiting: 'least patience first',
    note: 'written while nobody was in',
    answered: 'it is their turn',
    'put-by': 'comes back by itself',
    'wrapped-up': 'done',
  } satisfies Record<Group, string>,
  patience: {
    left: (time: string) => `${time} left`,
    late: (time: string) => `${time} late`,
    since: (time: string) => `since ${time}`,
    until: (time: string) => `until ${time}`,
    window: { closes: (time: string) => `answer within ${time}`, closed: 'window closed' },
  },
};
