import {
  MailChangeSchema,
  MailFoundSchema,
  MailSchema,
  MailTestSchema,
} from '@porch/contract/mail';
import { TypedEmailSchema } from '@porch/contract/typed';
import { en } from '@porch/core/alert-mail';
import { z } from 'zod';
import { memberOf } from '../accounts/asking';
import { Refused } from '../refused';
import { opensAnywhere } from '../security/outside';
import { newId } from '../security/tokens';
import type { Routing } from '../services';
import { findMailServers } from './finding';
import { sendMail } from './sending';

const forOwner = { who: 'owner' } as const;

/** How mail goes out and comes in. */
export const mailRoutes = async ({ app, services, settings }: Routing): Promise<void> => {
  const { mailSettings, mailboxes, visitorMails, replyAddresses } = services;
  const { store, change, limits, origin, originOf } = services;

  const shown = () => ({
    ...mailSettings.shown(),
    ownPort: settings.mailPort ?? null,
    mailboxProblem: mailboxes.problem(),
    linksTo: origin(),
    isNearOnly: !opensAnywhere(origin()),
  });

  app.get(
    '/api/mail',
    {
      config: forOwner,
      schema: { summary: 'How mail goes out and comes in', response: { 200: MailSchema } },
    },
    async () => shown(),
  );

  app.put(
    '/api/mail',
    {
      config: forOwner,
      schema: {
        summary: 'Changes how mail goes out and comes in',
        refuses: ['email-not-understood'],
        body: MailChangeSchema,
        response: { 200: MailSchema },
      },
    },
    async (request) => {
      if (request.body.incoming.kind === 'own' && settings.mailPort === undefined) {
        throw new Refused('bad-request', { field: 'incoming' });
      }
      mailSettings.set(request.body);
      store.business.setReachedAt(originOf(request));
      // Passwords that are said anew have a new key; what was sealed by the old one cannot be read any more.
      if (request.body.outgoingPassword ?? request.body.incomingPassword) {
        replyAddresses.renewIfShut();
      }
      mailboxes.restart();
      change(visitorMails.tryAgain);
      return shown();
    },
  );

  app.post(
    '/api/mail/find',
    {
      config: forOwner,
      schema: {
        summary: 'Finds the mail servers of an address',
        description: 'Nothing is signed in to, and nothing is kept.',
        refuses: ['email-not-understood', 'too-many'],
        body: z.object({ address: TypedEmailSchema }),
        response: { 200: MailFoundSchema },
      },
    },
    async (request) => {
      const waitMs = limits.trialRings.take(`mail ${memberOf(request).id}`);
      if (waitMs) throw new Refused('too-many', { waitMs });
      return findMailServers(request.body.address, services.mailAsking);
    },
  );

  app.post(
    '/api/mail/test',
    {
      config: forOwner,
      schema: {
        summary: 'Sends a mail to try it',
        refuses: ['too-many', 'not-found', 'secret-sealed'],
        response: { 200: MailTestSchema },
      },
    },
    async (request) => {
      const { id } = memberOf(request);
      const waitMs = limits.trialRings.take(`mail ${id}`);
      if (waitMs) throw new Refused('too-many', { waitMs });
      const { outgoing } = mailSettings.now();
      const password = mailSettings.outgoingPassword();
      const to = store.members.byId(id)?.email ?? '';
      if (!outgoing) throw new Refused('not-found');
      if (password === null) throw new Refused('secret-sealed');
      const name = store.business.read()?.name ?? '';
      const { why, said } = await sendMail(outgoing, password, {
        to,
        fromName: name,
        replyTo: null,
        subject: en.trial.subject(name),
        text: `${en.trial.text}\n`,
        messageId: `<${newId()}@${new URL(originOf(request)).hostname}>`,
        references: [],
      });
      return { why, said, to };
    },
  );
};
