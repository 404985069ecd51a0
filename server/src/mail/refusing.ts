import { en } from '@porch/core/alert-mail';
import { JobFailed, type JobKind } from '../jobs/worker';
import { messageIdOf, SEND_LONGEST_MS, sendMail } from './sending';
import type { MailSettingsKept } from './settings';
import type { RefusalMailJob } from './taking';

/** Tells whoever answered by mail why nothing was passed on. */
export const refusing = (services: {
  mailSettings: MailSettingsKept;
  businessName: () => string;
  origin: () => string;
}): JobKind<RefusalMailJob> => ({
  name: 'refusal-mail',
  atOnce: 2,
  leaseMs: SEND_LONGEST_MS,
  triesMost: 5,
  firstWaitMs: 30_000,
  longestWaitMs: 15 * 60_000,
  do: async ({ to, why, talk, messageId }, { key }) => {
    const { mailSettings, businessName, origin } = services;
    const { outgoing } = mailSettings.now();
    if (!outgoing) return;
    const password = mailSettings.outgoingPassword();
    if (password === null) throw new JobFailed('secret-sealed');
    const { subject, text } = en.refused[why];
    const sent = await sendMail(outgoing, password, {
      to,
      fromName: businessName(),
      replyTo: null,
      subject,
      text: `${text}\n\n${en.open}: ${origin()}/line/${talk}\n`,
      messageId: messageIdOf('refusal', key, origin()),
      references: messageId ? [messageId] : [],
      isReply: true,
    });
    if (sent.why !== null) throw new JobFailed(sent.why, sent.isFinal);
  },
});
