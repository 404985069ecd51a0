import { wording } from '../../../../kit/wording';
import type { NetworkWords } from '../words';

const en: NetworkWords = {
  name: 'Townfinder',
  more: 'Your listing on maps and in the directory: its chat, and who is in',
  find: 'On Townfinder, open “Your listing”, “Programs”, and look for the address, the listing’s name and a key.',
  fields: {
    url: { label: 'Address of Townfinder', more: 'It begins with https://' },
    listing: { label: 'Name of your listing', more: 'As it stands in its address' },
    key: { label: 'Key of the listing', more: 'It is kept sealed and never shown again.' },
  },
  putIn: 'In “Your listing”, “Programs”, put in this address and this word.',
  shows: {
    address: { label: 'Address to tell', copy: 'Copy the address' },
    word: { label: 'Word', copy: 'Copy the word' },
  },
};

export const townfinderWords = wording({ en });
