export const en = {
  label: 'Words, a name, an email',
  empty: 'Search everything ever said, by words and by person.',
  none: (words: string) => `Nothing was found for “${words}”.`,
  noneMore: 'Every word must be in the same message, or in what somebody left in the guest book.',
  found: (count: number) => (count === 1 ? '1 conversation' : `${count} conversations`),
  older: 'Show older',
  you: 'You: ',
};
