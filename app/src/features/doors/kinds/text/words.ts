import { wording } from '../../../../kit/wording';
import type { NetworkWords } from '../words';

const en: NetworkWords = {
  name: 'Text messages',
  more: 'People text your number. You need a text message provider',
  find: 'Your provider’s account shows an address, your number, the account’s name, and a key.',
  fields: {
    url: { label: 'Address of the provider', more: 'It begins with https://' },
    number: { label: 'Your number', more: 'With the country in front: +44 7700 900100' },
    account: { label: 'Name of the account' },
    key: { label: 'Key of the account', more: 'It is kept sealed and never shown again.' },
  },
  putIn:
    'In your provider’s account, for incoming texts and delivery reports, put in this address and this word.',
  shows: {
    address: { label: 'Address for incoming texts', copy: 'Copy the address' },
    word: { label: 'Word to sign with', copy: 'Copy the word' },
  },
};

export const textWords = wording({ en });
