import { wording } from '../../../../kit/wording';
import type { NetworkWords } from '../words';

const en: NetworkWords = {
  name: 'Mail',
  more: 'Mails to the business: each begins a conversation, or goes on with one',
  find: 'Mail has to be set up both ways in House, Mail, first. Then say which addresses people write to.',
  fields: {
    address: {
      label: 'Addresses that people write to',
      more: 'With commas between. They must come to the mailbox or the port that is set up in House, Mail.',
    },
  },
  putIn:
    'Only what comes from now on is taken. What lies in the mailbox already stays as it is, and so does what is for nobody here.',
  shows: {},
};

export const mailWords = wording({ en });
