import { many } from '../../../kit/many';

export const en = {
  label: 'Words, a name, an email',
  empty: 'Search everything ever said, by words and by person.',
  none: (words: string) => `Nothing was found for “${words}”.`,
  noneMore: 'Every word must be in the same message, or in what somebody left in the guest book.',
  found: (count: number) => many(count, 'conversation', 'conversations'),
  older: 'Show older',
};
