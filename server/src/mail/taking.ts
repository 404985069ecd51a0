import { FILE_LARGEST_BYTES, FILES_MOST } from '@porch/contract/entries';
import type { Deed } from '@porch/contract/line';
import type { Member } from '@porch/contract/people';
import { toEmail } from '@porch/core/contact';
import type { HeldBack, SetAside } from '@porch/core/conversation';
import {
  bounceReason,
  isAutomatic,
  isEncrypted,
  isForged,
  isJunk,
  isSameAddress,
  readDeliveryStatus,
} from '@porch/core/mail';
import { cleanLine, MESSAGE_LONGEST } from '@porch/core/text';
import type { Clock } from '../clock';
import type { Delivering } from '../doors/delivering';
import { addressesOf, MAIL } from '../doors/mail/kind';
import { kindInWords } from '../doors/parts-in-words';
import type { Files, Uploader } from '../files/files';
import type { Write } from '../inbox/batch';
import type { Persons } from '../inbox/persons';
import type { Receive } from '../inbox/receive';
import type { Record } from '../inbox/record';
import type { Reply } from '../inbox/reply';
import { Refused } from '../refused';
import type { Buckets } from '../security/bucket';
import { newId } from '../security/tokens';
import type { DoorRecord, ReplyAddressRecord, Store, VisitorAddressRecord } from '../store';
import { createHeldMails } from './held';
import type { Attached, ReadMail } from './read-mail';
import type { MailReader } from './reader';
import type { ReplyAddresses } from './reply-addresses';
import type { MailSettingsKept } from './settings';
import type { VisitorMails } from './visitors';

/** What nobody is told by mail. */
type OnTheRollOnly = 'automatic' | 'other-address' | 'forged';

const isOnTheRollOnly = (why: HeldBack): why is OnTheRollOnly =>
  why === 'automatic' || why === 'other-address' || why === 'forged';

/** What a job that tells a sender why their answer was not passed on carries. */
export interface RefusalMailJob {
  to: string;
  why: Exclude<HeldBack, OnTheRollOnly>;
  talk: string;
  /** Of the mail that it answers; null: it had none. */
  messageId: string | null;
}

/** Who is to be answered; `via`: who sent it in their name, '' for themselves. */
interface Writer {
  from: string;
  name: string;
  via: string;
}

/** Whose a mail is that is held back. */
interface Held {
  isOfTeam?: boolean;
  /** Theirs to whom we wrote, and meant for us. */
  isVisitors?: boolean;
  /** What the team is shown of it, where it is asked whose it is. */
  ask?: (entryId: string) => string | null;
}

/** Why a mail was not passed on, where the house refused it; null: it was passed on before. */
const whyOf = (error: unknown): HeldBack | null => {
  if (!(error instanceof Refused) || error.code === 'too-many') throw error;
  switch (error.code) {
    case 'id-taken':
      return null;
    case 'door-closed':
      return 'door-closed';
    case 'whom-unclear':
      return 'whom-unclear';
    case 'text-empty':
      return 'empty';
    case 'text-too-long':
    case 'too-large':
      return 'too-large';
    default:
      return 'unreadable';
  }
};

/** What is longer is no subject, in characters. */
const SUBJECT_TAKEN_LONGEST = 400;
/** Nobody sends more files at once; what is beyond is not looked at. */
const ATTACHED_MOST = 100;
/** To this a mailbox knows when a mail came (RFC 9051, 2.3.3). */
const SECOND_MS = 1_000;
const DAY_MS = 24 * 3_600_000;
/** By then nobody hands the same mail over again. */
const SEEN_KEPT_MS = 30 * DAY_MS;

/**
 * Takes answers that the team writes by mail: finds out which conversation they are for and who may write there, and
 * passes them on as a deed of that person. What is not passed on is said to whoever sent it, or on the roll.
 */
export const createMailTaking = (services: {
  store: Store;
  clock: Clock;
  write: Write;
  record: Record;
  persons: Persons;
  reply: Reply;
  receive: Receive;
  files: Files;
  replyAddresses: ReplyAddresses;
  mailSettings: MailSettingsKept;
  /** Where mails are opened that anybody may have written. */
  reader: MailReader;
  /** Says of answers that went by mail that they did not arrive. */
  bounced: VisitorMails['bounced'];
  /** The same of what went out by a door. */
  undelivered: Delivering['undelivered'];
  /** How often an address is told why; whoever is told without end may be a program that answers programs. */
  refusals: Buckets;
}) => {
  const { store, clock, write, record, persons, reply, receive, files, refusals } = services;
  const { replyAddresses, mailSettings, reader, bounced, undelivered } = services;

  const lookUp = (recipients: readonly string[]) => {
    const base = mailSettings.replyBase();
    if (base === null) return null;
    for (const address of recipients) {
      const looked = replyAddresses.look(address, base);
      if (looked.is !== 'unknown') return looked;
    }
    return null;
  };

  /** Whose conversation a mail goes on with that came without the detail in its address: by what it answers, of that person. */
  const lookUpAnswered = (recipients: readonly string[], { answers, from }: ReadMail) => {
    const base = mailSettings.replyBase();
    const isToUs = base !== null && recipients.some((address) => isSameAddress(address, base));
    if (!isToUs || !from) return null;
    for (const messageId of answers) {
      const threadId = store.visitorMail.threadOf(messageId);
      const record = threadId && store.visitorMail.of(threadId, from);
      if (record) return { is: 'visitor' as const, record };
    }
    return null;
  };

  const filesOf = async (mail: ReadMail, by: Uploader): Promise<string[]> => {
    const ids: string[] = [];
    for (const [at, { name, bytes }] of mail.attached.slice(0, FILES_MOST).entries()) {
      if (bytes.length === 0) continue;
      const id = `mail-${mail.id}-${at}`;
      await files.take(id, name, bytes, by);
      ids.push(id);
    }
    return ids;
  };

  const isTooLarge = ({ said, attached }: ReadMail): boolean =>
    said.length > MESSAGE_LONGEST ||
    attached.length > FILES_MOST ||
    attached.some(({ bytes }) => bytes.length > FILE_LARGEST_BYTES);

  /** Why a mail can never be taken in, whoever wrote it; null: it can. */
  const unfit = (mail: ReadMail): HeldBack | null => {
    if (mail.isUnreadable) return 'unreadable';
    if (isEncrypted(mail.headers)) return 'encrypted';
    return isTooLarge(mail) ? 'too-large' : null;
  };

  /** On the roll; and to a sender of the team, whom the mail that says it is written for. */
  const holdBack = (
    talk: string,
    mail: ReadMail,
    envelopeFrom: string,
    why: HeldBack,
    { isOfTeam = true, isVisitors = false, ask = () => null }: Held = {},
  ): Promise<null> => {
    const isTold =
      isOfTeam &&
      !isOnTheRollOnly(why) &&
      envelopeFrom !== '' &&
      refusals.take(envelopeFrom.toLowerCase()) === 0;
    return write(() => {
      if (!store.mail.see(mail.id, clock.now())) return { result: null, news: [] };
      const conversation = persons.standing(talk);
      const from = (mail.from || envelopeFrom).slice(0, 254);
      const id = newId();
      const says = conversation ? ask(id) : null;
      const asked = says === null ? {} : { says };
      const theirs = isVisitors ? { isVisitors } : {};
      const happening = { kind: 'held-back' as const, why, from, ...asked, ...theirs };
      if (isTold) {
        const job: RefusalMailJob = { to: envelopeFrom, why, talk, messageId: mail.messageId };
        const key = `refusal-mail ${mail.id}`;
        store.jobs.add(
          { key, kind: 'refusal-mail', load: job, notBefore: clock.now() },
          clock.now(),
        );
      }
      return {
        result: null,
        news: conversation ? [record.add(conversation, null, [{ id, happening }])] : [],
      };
    });
  };

  const pass = async (
    { conversationId, threadId }: Pick<ReplyAddressRecord, 'conversationId' | 'threadId'>,
    mail: ReadMail,
    member: Member,
  ): Promise<HeldBack | null> => {
    const why = unfit(mail);
    if (why) return why;
    try {
      const fileIds = await filesOf(mail, { memberId: member.id });
      if (!mail.said && fileIds.length === 0) return 'empty';
      const whom = threadId ? { threadId } : {};
      const deed: Deed = { do: 'say', id: `mail-${mail.id}`, text: mail.said, fileIds, ...whom };
      await reply.deed(conversationId, deed, member);
      return null;
    } catch (error) {
      return whyOf(error);
    }
  };

  /** What a visitor answers by mail goes on in their conversation; null: it was taken. */
  const passOn = async (mail: ReadMail, threadId: string): Promise<HeldBack | null> => {
    const why = unfit(mail);
    if (why) return why;
    const thread = store.threads.byId(threadId);
    if (!thread) return 'stale';
    if (store.doors.byId(thread.doorId)?.closedAt) return 'door-closed';
    try {
      const fileIds = await filesOf(mail, { threadId, address: `mail ${mail.from}` });
      if (!mail.said && fileIds.length === 0) return 'empty';
      const { said: text, rest } = mail;
      const typed = { id: `mail-${mail.id}`, text, rest, fileIds, page: null };
      await receive.message(thread, typed, { isHere: false });
      await write(() => {
        if (mail.messageId) store.visitorMail.note(threadId, clock.now(), mail.messageId, null);
        return { result: null, news: [] };
      });
      return null;
    } catch (error) {
      return whyOf(error);
    }
  };

  const openDoors = (): DoorRecord[] =>
    store.doors.standing().filter(({ kind, closedAt }) => kind === MAIL && closedAt === null);

  /** To which door a mail is that answers nothing; null: to none that is open. */
  const doorFor = (addresses: readonly string[], cameAt?: number): DoorRecord | null =>
    openDoors().find(
      (door) =>
        (cameAt === undefined || cameAt + SECOND_MS > Number(door.settings.since ?? 0)) &&
        addresses.some((address) => addressesOf(door).some((one) => isSameAddress(one, address))),
    ) ?? null;

  /** Whether a file of a mail can be had. */
  const isTaken = (id: string, { name, bytes }: Attached, by: Uploader): Promise<boolean> =>
    bytes.length > FILE_LARGEST_BYTES
      ? Promise.resolve(false)
      : files.take(id, name, bytes, by).then(
          () => true,
          (error) => {
            // Too much at once is no word on this one: whoever has the mail hands it over again.
            if (!(error instanceof Refused) || error.code === 'too-many') throw error;
            return false;
          },
        );

  /** What of a mail's files can be had, and what those are called that cannot; as many to a message as it takes. */
  const filesApart = async (mail: ReadMail, by: Uploader) => {
    const messages = [{ fileIds: [] as string[], missing: [] as string[] }];
    const whole = mail.attached.filter(({ bytes }) => bytes.length > 0).slice(0, ATTACHED_MOST);
    for (const [at, file] of whole.entries()) {
      const id = `mail-${mail.id}-${at}`;
      let last = messages.at(-1);
      if (!last || last.fileIds.length + last.missing.length >= FILES_MOST) {
        last = { fileIds: [], missing: [] };
        messages.push(last);
      }
      if (await isTaken(id, file, by)) last.fileIds.push(id);
      else last.missing.push(file.name.slice(0, 400));
    }
    return messages;
  };

  /** Why what a mail says does not stand in the line; undefined: it does. */
  const setAsideFor = (mail: ReadMail, envelopeFrom: string): SetAside | undefined => {
    if (isForged(mail.headers)) return 'forged';
    if (mail.status || isAutomatic(mail.headers, envelopeFrom)) return 'automatic';
    return isJunk(mail.headers) ? 'junk' : undefined;
  };

  /** Who sent a mail: where it names nobody, or more than one, whoever handed it over. */
  const senderOf = (mail: ReadMail, envelopeFrom: string): Writer => ({
    from: (toEmail(mail.from) ?? toEmail(envelopeFrom) ?? '').toLowerCase(),
    name: mail.fromName,
    via: '',
  });

  /**
   * Who is to be answered: whoever sent it or, where it
   * names somebody else to be answered (a website's form that sends what was filled in), it is that person who wrote.
   */
  const writerOf = (mail: ReadMail, envelopeFrom: string): Writer => {
    const sender = senderOf(mail, envelopeFrom);
    const other = (toEmail(mail.replyTo) ?? '').toLowerCase();
    const isOurs = other !== '' && (lookUp([other]) !== null || doorFor([other]) !== null);
    const isList = mail.headers['list-id'] !== undefined;
    if (!other || other === sender.from || isOurs || isList) return sender;
    return { from: other, name: mail.replyToName, via: sender.from };
  };

  /** A mail to the business, or one more of somebody who wrote before; `isProven`: it came to an address that only they know. */
  const takeToDoor = async (
    door: DoorRecord,
    mail: ReadMail,
    bytes: Buffer,
    envelopeFrom: string,
    isProven: boolean,
  ): Promise<'nobodys' | null> => {
    // What came to an address that only they know is of whoever has it: another name in it proves nobody.
    const writer = isProven ? senderOf(mail, envelopeFrom) : writerOf(mail, envelopeFrom);
    const { from } = writer;
    if (!from) return 'nobodys';
    const thread = receive.threadFor({ doorId: door.id, address: from });
    const original = { name: 'email.eml', bytes };
    const had = mail.isUnreadable ? { ...mail, attached: [original] } : mail;
    const [first, ...more] = await filesApart(had, {
      threadId: thread.id,
      address: `mail ${from}`,
    });
    const said = {
      doorId: door.id,
      from,
      name: writer.name,
      saidAt: mail.writtenAt ?? undefined,
      email: from,
      proves: isProven ? [{ kind: 'email', address: from }] : [],
      setAside: setAsideFor(mail, writer.via ? from : envelopeFrom),
    };
    const networkId = `${mail.id} ${from}`;
    const subject = cleanLine(mail.subject).slice(0, SUBJECT_TAKEN_LONGEST);
    const mailed = { rest: mail.rest, subject, pictures: mail.pictures, via: writer.via };
    const text = mail.isUnreadable
      ? kindInWords('unreadable')
      : isEncrypted(mail.headers)
        ? kindInWords('encrypted')
        : mail.said;
    const messages = [
      { ...said, fileIds: [], ...first, networkId, text, mail: mailed },
      ...more.map((files, at) => ({
        ...said,
        ...files,
        networkId: `${networkId} ${at + 1}`,
        text: '',
        mail: { rest: '', subject: '', pictures: [] },
      })),
    ];
    await write(() => {
      const news = messages.flatMap((message) => receive.inboundNow(message).news);
      if (mail.messageId) store.visitorMail.note(thread.id, clock.now(), mail.messageId, null);
      return { result: null, news };
    });
    return null;
  };

  /** The door to mails at which a thread is; null: it is at another kind of door, or that is gone. */
  const mailDoorOf = (threadId: string): DoorRecord | null => {
    const door = store.doors.byId(store.threads.byId(threadId)?.doorId ?? '');
    return door?.kind === MAIL && door.removedAt === null ? door : null;
  };

  const heldMails = createHeldMails({ store, clock, persons, record, reader, passOn });

  /** Whether a mail is of whoever we wrote to, as far as is known. */
  const isTheirs = (mail: ReadMail, { threadId, address }: VisitorAddressRecord): boolean =>
    isSameAddress(mail.from, address) || store.heldMails.isTheirs(threadId, mail.from) === true;

  /** A server says what became of a mail of ours: whether that is bad news, which is noted once. */
  const takeStatus = (mail: ReadMail, threadId: string): Promise<boolean> => {
    const failed = readDeliveryStatus(mail.status).find(({ action }) => action === 'failed');
    if (!failed) return Promise.resolve(false);
    return write(() => {
      const isNew = store.mail.see(mail.id, clock.now());
      const say = mailDoorOf(threadId) ? undelivered : bounced;
      const news = isNew ? say(threadId, bounceReason(failed.status)) : [];
      return { result: true, news };
    });
  };

  const takeVisitors = async (
    mail: ReadMail,
    bytes: Buffer,
    to: VisitorAddressRecord,
    envelopeFrom: string,
  ): Promise<HeldBack | null> => {
    const { threadId } = to;
    const held = (why: HeldBack, whose: Held = {}) =>
      holdBack(threadId, mail, envelopeFrom, why, { isOfTeam: false, ...whose }).then(() => why);
    if (mail.status) return (await takeStatus(mail, threadId)) ? null : held('automatic');
    if (isAutomatic(mail.headers, envelopeFrom)) return held('automatic');
    if (isForged(mail.headers)) return held('forged');
    if (!isTheirs(mail, to)) {
      const why = unfit(mail);
      if (why) return held(why);
      const ask = (entryId: string) => heldMails.ask(entryId, threadId, mail, bytes);
      return held('other-address', { ask });
    }
    const door = mailDoorOf(threadId);
    if (door && door.closedAt === null && isSameAddress(mail.from, to.address)) {
      await takeToDoor(door, mail, bytes, envelopeFrom, true);
      return null;
    }
    const why = await passOn(mail, threadId);
    return why === null ? null : held(why, { isVisitors: true });
  };

  return {
    heldMails,
    /** Whether a mail for an address would be looked at; of anything else nothing is taken. */
    isOurs: (address: string, cameAt?: number): boolean =>
      lookUp([address]) !== null || doorFor([address], cameAt) !== null,
    /** Whether a mail to the plain address answers one of ours, by what it says that it answers. */
    isAnswer: (addresses: readonly string[], answers: readonly string[]): boolean => {
      const base = mailSettings.replyBase();
      const isToUs = base !== null && addresses.some((address) => isSameAddress(address, base));
      return isToUs && answers.some((id) => store.visitorMail.threadOf(id) !== null);
    },
    /** Whether an address is the plain one of our answers, to which some programs answer. */
    isPlain: (address: string): boolean => {
      const base = mailSettings.replyBase();
      return base !== null && isSameAddress(address, base);
    },
    /** Up to which mail of the mailbox a door has been looked for; '' before that. */
    markOf: (doorId: string): string => store.doors.mark(doorId),
    /** All that the mailbox has up to a mark was looked at for the doors that are open. */
    lookedUpTo: (mark: string): Promise<null> =>
      write(() => {
        for (const { id } of openDoors()) store.doors.setMark(id, mark);
        return { result: null, news: [] };
      }),
    /** Doors to mails that are open: what comes to the mailbox may be for one of them. */
    openDoors,
    /**
     * Takes one mail; the same mail twice is once. Resolves when what came of it is on disk; fails where that
     * cannot be said now, so that whoever has the mail keeps it.
     */
    take: async (
      bytes: Buffer,
      envelope: { from: string; to: readonly string[]; by?: string },
    ): Promise<HeldBack | 'nobodys' | null> => {
      const mail = await reader.read(bytes, envelope.by || envelope.from);
      const to = [...envelope.to, ...mail.to];
      const looked = lookUp(to) ?? lookUpAnswered(to, mail);
      if (!looked) {
        const door = doorFor(to);
        return door ? takeToDoor(door, mail, bytes, envelope.from, false) : 'nobodys';
      }
      if (looked.is === 'visitor') {
        return takeVisitors(mail, bytes, looked.record, envelope.from);
      }
      const { conversationId: talk, memberId } = looked.record;
      const held = (why: HeldBack) => holdBack(talk, mail, envelope.from, why).then(() => why);
      if (isAutomatic(mail.headers, envelope.from)) return held('automatic');
      if (looked.is === 'stale') return held('stale');
      const member = store.members.byId(memberId);
      const isTheirs = member !== null && isSameAddress(mail.from, member.email);
      if (!member || !isTheirs || isForged(mail.headers)) return held('unknown-sender');
      const why = await pass(looked.record, mail, member);
      return why === null ? null : held(why);
    },
    tidy: (): void => {
      store.mail.forgetBefore(clock.now() - SEEN_KEPT_MS);
      heldMails.tidy();
      replyAddresses.tidy();
    },
  };
};

export type MailTaking = ReturnType<typeof createMailTaking>;
