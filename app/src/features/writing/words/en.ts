/** What is said of a text that is stored to be sent many times. */
export const en = {
  findings: {
    title: 'Worth a look',
    none: 'Nothing to correct.',
    looking: 'Looking through it …',
    notSpelled: 'The spelling could not be looked at. Save it all the same, or try again later.',
    spelling: (word: string) => `“${word}” is not in the dictionary`,
    doubled: (words: string) => `“${words}”: the same word twice`,
    spaces: 'Two spaces in a row',
    placeholder: (words: string) => `“${words}” looks like a gap that was left`,
    unknownGap: (name: string) => `There is no gap called “${name}”`,
    neverFilled: (gap: string) =>
      `“${gap}” is read as it is: only quick replies have their gaps filled in`,
    link: (link: string) => `“${link}” leads nowhere`,
    unclosed: 'A brace that is not closed',
    nested: 'A gap inside another gap',
    stray: 'A brace that closes nothing',
    empty: 'A gap without a name',
    oneSpace: 'One space',
    instead: (words: string) => `Write “${words}”`,
    ask: (gap: string) => `Ask for it: ${gap}`,
    ours: (word: string) => `“${word}” is right here`,
    more: (count: number) => (count === 1 ? 'And one more.' : `And ${count} more.`),
  },
  ownWords: {
    title: 'Our own words',
    more: 'Names of plants, streets and people that no dictionary has. They are never marked as mistakes.',
    label: 'One word a line',
    save: 'Save the words',
    saved: 'Saved.',
  },
};
