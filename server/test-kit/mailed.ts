import type { Entry } from '@porch/core/conversation';
import { openHouse, setUp } from './house';
import { openPost } from './post';

/** A house that writes to visitors by mail and hears their answers, and in which nobody of the team is written to. */
export const openMailHouse = async (
  parts: Parameters<typeof openHouse>[2] = {},
  more: Parameters<typeof openHouse>[0] = {},
) => {
  const out = await openPost();
  const settings = { mailPort: 0, publicOrigin: 'http://porch.example', ...more };
  const house = await openHouse(settings, ':memory:', parts);
  const { cookie, door } = await setUp(house);
  /** Where its own mail server listens. */
  const ours = await house.services.mailPort.listen(0, '127.0.0.1');
  await house.ask('PUT', '/api/mail', {
    cookie,
    body: {
      outgoing: out.outgoing,
      incoming: { kind: 'own', domain: 'porch.example' },
      outgoingPassword: null,
      incomingPassword: null,
    },
  });
  const rules = { againAfterMs: null, othersAfterMs: null, otherIds: null, mailAfterMs: null };
  await house.ask('PUT', '/api/ring-on', { cookie, body: { ...rules, mailIds: null } });
  return {
    out,
    house,
    cookie,
    door,
    ours,
    /** The entries of a kind, in their order. */
    roll: <Kind extends Entry['kind']>(kind: Kind) =>
      house.store.entries
        .since(0, 500)
        .filter((entry): entry is Extract<Entry, { kind: Kind }> => entry.kind === kind),
    close: async (): Promise<void> => {
      await house.close();
      await out.close();
    },
  };
};

export type MailHouse = Awaited<ReturnType<typeof openMailHouse>>;
