import { wording } from '../../../../kit/wording';
import type { NetworkWords } from '../words';

const en: NetworkWords = {
  name: 'Wavelet',
  more: 'Messages to your page on a social network',
  find: 'On Wavelet, open your page’s settings, “For programs”, and look for the address, the page’s name and a key.',
  fields: {
    url: { label: 'Address of Wavelet', more: 'It begins with https://' },
    page: { label: 'Name of your page', more: 'As it stands behind the / of its address' },
    key: { label: 'Key of the page', more: 'It is kept sealed and never shown again.' },
  },
  putIn: 'Under “For programs”, “Tell when something is new”, put in this address and this word.',
  shows: {
    address: { label: 'Whom to tell', copy: 'Copy the address' },
    word: { label: 'Word', copy: 'Copy the word' },
  },
};

export const waveletWords = wording({ en });
