import { wording } from '../../../../kit/wording';
import type { NetworkWords } from '../words';

const en: NetworkWords = {
  name: 'Another network',
  more: 'Any other messenger, by a small program that a developer sets up',
  find: 'A bridge is a small program between a network and Hello Porch. Whoever runs it tells you its address.',
  fields: {
    url: { label: 'Address of the bridge', more: 'It begins with https://' },
  },
  putIn: 'Give this address and this key to whoever runs the bridge.',
  shows: {
    address: { label: 'Address of this door', copy: 'Copy the address' },
    key: { label: 'Key', copy: 'Copy the key' },
  },
};

export const bridgeWords = wording({ en });
