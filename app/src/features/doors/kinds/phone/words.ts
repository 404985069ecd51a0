import { wording } from '../../../../kit/wording';
import type { NetworkWords } from '../words';

const en: NetworkWords = {
  name: 'Phone',
  more: 'Missed calls, and what is spoken after the tone',
  find: 'In your telephone exchange’s account, look for its address, your number and a key.',
  fields: {
    url: { label: 'Address of the exchange', more: 'It begins with https://' },
    number: { label: 'Your number', more: 'With the country in front: +44 20 7946 0100' },
    key: { label: 'Key', more: 'It is kept sealed and never shown again.' },
    ring: {
      label: 'Numbers that ring while the porch light is lit',
      more: 'With commas between. Empty: nobody is rung, and callers may speak after the tone.',
    },
    order: {
      label: 'How they ring',
      options: { all: 'All at once', 'in-order': 'One after the other' },
    },
    say: {
      label: 'What callers hear when nobody comes to it',
      more: 'Before the tone. The exchange speaks it.',
    },
  },
  putIn: 'In the exchange’s account, for calls, put in this address and this word.',
  shows: {
    address: { label: 'Address for calls', copy: 'Copy the address' },
    word: { label: 'Word', copy: 'Copy the word' },
  },
};

export const phoneWords = wording({ en });
