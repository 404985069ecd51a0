import { createHash } from 'node:crypto';
import type { DoorCan, Outbound } from '@porch/contract/doors';
import { FILES_MOST } from '@porch/contract/entries';
import { toEmail } from '@porch/core/contact';
import { MESSAGE_LONGEST } from '@porch/core/text';
import type { Clock } from '../../clock';
import type { Change } from '../../inbox/batch';
import { JobFailed } from '../../jobs/worker';
import type { ReplyAddresses } from '../../mail/reply-addresses';
import { SEND_LONGEST_MS, sendMail } from '../../mail/sending';
import type { MailSettingsKept } from '../../mail/settings';
import { Refused } from '../../refused';
import type { DoorRecord, Store } from '../../store';
import { connectingBy, type NetworkParts, toldOf } from '../network-parts';
import type { DoorKind } from '../registry';

export const MAIL = 'mail';

/** More than that is refused by many servers; it goes as a link. */
const FILE_LARGEST_BYTES = 4_000_000;

const ADDRESSES_MOST = 10;

const can: DoorCan = {
  textLongest: MESSAGE_LONGEST,
  filesMost: Math.min(4, FILES_MOST),
  fileLargestBytes: FILE_LARGEST_BYTES,
  receipts: 'sent',
  typing: false,
  windowMs: null,
};

/** To which addresses one writes who means a door. */
export const addressesOf = (door: Pick<DoorRecord, 'settings'>): string[] =>
  (toldOf(door).address ?? '')
    .split(',')
    .map((one) => one.trim())
    .filter(Boolean);

const domainOf = (address: string): string => address.split('@').at(-1)?.toLowerCase() ?? '';

/** Mail to the business: a person's address is who they are here, and each mail goes on where the one before it was. */
export const mailDoor = (
  services: Pick<NetworkParts, 'outside' | 'fileBytes'> & {
    store: Store;
    clock: Clock;
    change: Change;
    mailSettings: MailSettingsKept;
    replyAddresses: ReplyAddresses;
    origin: () => string;
  },
): DoorKind => {
  const { store, clock, change, outside, fileBytes, mailSettings, replyAddresses, origin } =
    services;

  /** Why no mail comes in to an address; null: it does, as far as is known. */
  const problemOf = (address: string): string | null => {
    const { outgoing, incoming } = mailSettings.now();
    if (!outgoing || incoming.kind === 'none') return 'mail-not-set';
    if (incoming.kind === 'own') {
      return domainOf(address) === incoming.domain ? null : 'mail-elsewhere';
    }
    // Other names may lead to the same mailbox; the house finds out when the first mail comes.
    return domainOf(address) === domainOf(incoming.address) ? null : 'mail-elsewhere';
  };

  const send = async (
    door: DoorRecord,
    { key, to, text, files }: Outbound,
  ): Promise<{ networkId: string; step: 'sent' }> => {
    const { outgoing } = mailSettings.now();
    const base = mailSettings.replyBase();
    const thread = store.threads.byWriter({ doorId: door.id, address: to });
    if (!outgoing || base === null) throw new JobFailed('mail-not-set');
    if (!thread) throw new JobFailed('person-unknown', true);
    const password = mailSettings.outgoingPassword();
    const reply = replyAddresses.makeForVisitor(base, thread.id, to);
    if (password === null || !reply) throw new JobFailed('secret-sealed');
    const business = store.business.read()?.name ?? '';
    const subject = store.mailFacts.subject(thread.id);
    // The same for the same answer: a mail that goes twice is shown once.
    const mark = createHash('sha256').update(`${door.id} ${key}`).digest('hex').slice(0, 32);
    const messageId = `<${mark}@${new URL(origin()).hostname}>`;
    const { why, isFinal } = await sendMail(outgoing, password, {
      to,
      fromName: business,
      replyTo: reply.address,
      subject: subject ? `Re: ${subject}` : business,
      text,
      messageId,
      references: store.visitorMail.idsOf(thread.id),
      isPersons: true,
      bouncesTo: reply.address,
      attached: files.map(({ id, name, type }) => ({ name, type, bytes: fileBytes(id) })),
    });
    if (why !== null) throw new JobFailed(why, isFinal);
    change(() => store.visitorMail.note(thread.id, clock.now(), messageId, null));
    return { networkId: messageId, step: 'sent' };
  };

  const connecting = connectingBy({
    outside,
    fields: [{ id: 'address', form: 'line' }],
    made: [],
    check: async (door) => {
      for (const address of addressesOf(door)) {
        const problem = problemOf(address);
        if (problem) throw new JobFailed(problem);
      }
      return {};
    },
  });

  /** Refuses an address of another door: nobody could say for which of them a mail is. */
  const refuseTaken = (address: string): void => {
    const isTaken = store.doors
      .standing()
      .some((door) => door.kind === MAIL && addressesOf(door).includes(address));
    if (isTaken) throw new Refused('address-taken', { field: 'address' });
  };

  return {
    kind: MAIL,
    plate: 'envelope',
    way: MAIL,
    can,
    send: ({ door, outbound }) => send(door, outbound),
    sendLongestMs: SEND_LONGEST_MS,
    writeTo: (door, text) => {
      const [address] = addressesOf(door);
      return address ? `mailto:${address}?body=${encodeURIComponent(text)}` : null;
    },
    connecting: {
      ...connecting,
      settle: (given, known) => {
        const kept = connecting.settle(given, known);
        const typed = addressesOf(kept);
        const before = known ? addressesOf(known) : [];
        const addresses = typed.map((one) => {
          const email = toEmail(one);
          if (!email) throw new Refused('email-not-understood', { field: 'address' });
          const address = email.toLowerCase();
          if (!before.includes(address)) refuseTaken(address);
          return address;
        });
        if (addresses.length > ADDRESSES_MOST) {
          throw new Refused('too-many-of-these', { limit: ADDRESSES_MOST, field: 'address' });
        }
        // What lay in the mailbox before is nobody's new mail.
        const since = known?.settings.since ?? clock.now();
        const told = { ...toldOf(kept), address: addresses.join(', ') };
        return { ...kept, settings: { ...kept.settings, told, since } };
      },
      shows: () => ({}),
    },
  };
};
