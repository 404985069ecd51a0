import type { IncomingMail, Mail, MailChange, MailSettings } from '@porch/contract/mail';
import { toEmail } from '@porch/core/contact';
import type { Change } from '../inbox/batch';
import { Refused } from '../refused';
import type { Seal } from '../security/seal';
import type { Store } from '../store';

const nothing: MailSettings = { outgoing: null, incoming: { kind: 'none' } };

const OUT = 'mail-out';
const IN = 'mail-in';

const emailOf = (typed: string, field: string): string => {
  const email = toEmail(typed);
  if (!email) throw new Refused('email-not-understood', { field });
  return email;
};

const incomingOf = (typed: IncomingMail): IncomingMail => {
  if (typed.kind === 'mailbox') return { ...typed, address: emailOf(typed.address, 'address') };
  if (typed.kind !== 'own') return typed;
  const domain = typed.domain.trim().toLowerCase();
  emailOf(`replies@${domain}`, 'domain');
  return { ...typed, domain };
};

/** How mail goes out and comes in, as the owner has set it; its passwords are sealed and never told. */
export const createMailSettings = (services: { store: Store; seal: Seal; change: Change }) => {
  const { store, seal, change } = services;

  const now = (): MailSettings => store.mail.settings() ?? nothing;
  const has = (name: string): boolean => store.houseSecrets.sealed(name) !== null;
  const password = (name: string): string | null => {
    const sealed = store.houseSecrets.sealed(name);
    return sealed ? seal.open(sealed, name) : '';
  };
  const setPassword = (name: string, typed: string | null): void => {
    if (typed !== null) store.houseSecrets.setSealed(name, seal.seal(typed, name));
  };

  return {
    now,
    /** Whether mail goes out at all. */
    goesOut: (): boolean => now().outgoing !== null,
    /** Whether an answer can go out by mail and be answered in turn. */
    canAnswer: (): boolean => now().outgoing !== null && now().incoming.kind !== 'none',
    /** Null where it cannot be opened; '' where there is none. */
    outgoingPassword: (): string | null => password(OUT),
    incomingPassword: (): string | null => password(IN),
    /** The address that answers go to, without its detail; null: nowhere. */
    replyBase: (): string | null => {
      const { incoming } = now();
      if (incoming.kind === 'none') return null;
      return incoming.kind === 'own' ? `replies@${incoming.domain}` : incoming.address;
    },
    shown: (): Pick<Mail, 'settings' | 'hasOutgoingPassword' | 'hasIncomingPassword'> => ({
      settings: now(),
      hasOutgoingPassword: has(OUT),
      hasIncomingPassword: has(IN),
    }),
    set: ({ outgoing, incoming, outgoingPassword, incomingPassword }: MailChange): void => {
      const next: MailSettings = {
        outgoing: outgoing && { ...outgoing, from: emailOf(outgoing.from, 'from') },
        incoming: incomingOf(incoming),
      };
      change(() => {
        store.mail.setSettings(next);
        setPassword(OUT, outgoingPassword);
        setPassword(IN, incomingPassword);
      });
    },
  };
};

export type MailSettingsKept = ReturnType<typeof createMailSettings>;
