import { wording } from '../../../../kit/wording';
import type { NetworkWords } from '../words';

const en: NetworkWords = {
  name: 'Tintype',
  more: 'Direct messages on a picture network',
  find: 'On Tintype, open “Studio”, “Programs”, and look for the address, your account’s name and a key.',
  fields: {
    url: { label: 'Address of Tintype', more: 'It begins with https://' },
    account: { label: 'Name of your account', more: 'Without the @' },
    key: { label: 'Key of the account', more: 'It is kept sealed and never shown again.' },
  },
  putIn: 'In “Studio”, “Programs”, put in this address and this word.',
  shows: {
    address: { label: 'Address of the program', copy: 'Copy the address' },
    word: { label: 'Word to mark with', copy: 'Copy the word' },
  },
};

export const tintypeWords = wording({ en });
