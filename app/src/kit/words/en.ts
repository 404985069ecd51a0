export const en = {
  /** How this language writes times and dates, as browsers name it. */
  locale: 'en-GB',
  /** Lengths of time, as short as they are said. */
  spans: {
    seconds: (count: number) => `${count} s`,
    minutes: (count: number) => `${count} min`,
    hours: (count: number) => `${count} h`,
    days: (count: number) => `${count} d`,
  },
  close: 'Close',
  on: 'On',
  off: 'Off',
  loading: 'Loading',
  failed: {
    title: 'This could not be shown',
    more: 'Nothing was lost. Check the connection and try again.',
    retry: 'Try again',
  },
  copied: 'Copied',
  notCopied: 'The browser does not allow copying here. Select the text above and copy it.',
  closePicture: 'Close picture',
  save: 'Save',
  saved: 'Saved',
};
