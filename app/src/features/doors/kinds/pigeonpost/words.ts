import { wording } from '../../../../kit/wording';
import type { NetworkWords } from '../words';

const en: NetworkWords = {
  name: 'Pigeonpost',
  more: 'Messenger by phone number',
  find: 'In Pigeonpost’s page for businesses, open “Your loft” and look for the address, your number and a key.',
  fields: {
    url: { label: 'Address of Pigeonpost', more: 'It begins with https://' },
    number: {
      label: 'Your number there',
      more: 'The business’s own, not yours: +44 7700 900100',
    },
    key: { label: 'Key', more: 'It is kept sealed and never shown again.' },
  },
  putIn:
    'In “Your loft”, under “Where letters go”, put in this address and this word. Pigeonpost asks the address at once whether it is meant.',
  shows: {
    address: { label: 'Where letters go', copy: 'Copy the address' },
    word: { label: 'Word', copy: 'Copy the word' },
  },
};

export const pigeonpostWords = wording({ en });
