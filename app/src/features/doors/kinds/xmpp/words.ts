import { wording } from '../../../../kit/wording';
import type { NetworkWords } from '../words';

const en: NetworkWords = {
  name: 'Open messenger',
  more: 'Anybody with an XMPP address writes to yours, whatever server either is at',
  find: 'Open an account for the business at any XMPP server, your own or one of a provider, and let nobody else use it.',
  fields: {
    address: { label: 'XMPP address of the business', more: 'As in hello@quillfern.example' },
    password: { label: 'Password', more: 'It is kept sealed and never shown again.' },
    server: {
      label: 'Server, where it is elsewhere',
      more: 'As in chat.quillfern.example:5222. Empty: where the address says.',
    },
  },
  putIn: 'People write to this address. It shows whoever keeps it whether your porch light is lit.',
  shows: {},
};

export const xmppWords = wording({ en });
