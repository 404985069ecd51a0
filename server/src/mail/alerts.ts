import { en, type MailSlip, renderAlertMail } from '@porch/core/alert-mail';
import { callOf } from '@porch/core/calling';
import { type Entry, groupOf } from '@porch/core/conversation';
import type { Clock } from '../clock';
import { sitesOf } from '../doors/website/kind';
import type { Persons } from '../inbox/persons';
import type { Record } from '../inbox/record';
import { JobFailed, type JobKind } from '../jobs/worker';
import type { News } from '../live/hub';
import { newId } from '../security/tokens';
import type { ConversationRecord, Store } from '../store';
import type { ReplyAddresses } from './reply-addresses';
import { type OutMail, sendMail } from './sending';
import type { MailSettingsKept } from './settings';

/** What a job that mails one person carries. */
export interface AlertMailJob {
  talk: string;
  memberId: string;
  /** What an answer goes to; null: it cannot be answered. */
  replyTo: string | null;
  expiresAt: number;
}

/** So much of what was said is in the mail. */
const SLIPS_MOST = 20;

const nothing = { result: null, news: [] };

const locale = 'en-GB';

const momentIn = (at: number, zone: string): string =>
  new Intl.DateTimeFormat(locale, {
    timeZone: zone,
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
  }).format(at);

const dayIn = (at: number, zone: string): string =>
  new Intl.DateTimeFormat(locale, { timeZone: zone, day: 'numeric', month: 'long' }).format(at);

/** Writes to people of the team that somebody waits, with the conversation so far. */
export const createAlertMails = (services: {
  store: Store;
  clock: Clock;
  persons: Persons;
  record: Record;
  mailSettings: MailSettingsKept;
  replyAddresses: ReplyAddresses;
  /** Whether somebody has looked, so that nothing is to be written any more. */
  isOpen: (talk: string) => boolean;
  /** Where the app is reached. */
  origin: () => string;
}) => {
  const { store, clock, persons, record, mailSettings, replyAddresses, isOpen, origin } = services;

  const slipsOf = (conversation: ConversationRecord, who: string, zone: string) => {
    const said = store.entries
      .rollBefore(persons.scopeOf(conversation), Number.MAX_SAFE_INTEGER, SLIPS_MOST * 4)
      .filter(
        (entry): entry is Extract<Entry, { kind: 'visitor-said' | 'team-said' }> =>
          entry.kind === 'visitor-said' || entry.kind === 'team-said',
      );
    const slips = said.slice(-SLIPS_MOST).map(
      (entry): MailSlip => ({
        who: entry.kind === 'team-said' ? (store.members.shownOf(entry.memberId)?.name ?? '') : who,
        when: momentIn(entry.at, zone),
        isTeam: entry.kind === 'team-said',
        text: entry.text,
        files: entry.files,
      }),
    );
    return { slips, earlier: said.length - slips.length };
  };

  const whoIn = ({ state, threads }: ConversationRecord): string => {
    const business = store.business.read();
    const door = store.doors.byId(threads[0]?.doorId ?? '');
    const around = {
      business: business?.name ?? '',
      zone: business?.zone ?? 'UTC',
      sites: door ? sitesOf(door) : [],
    };
    const call = callOf(state, around);
    return call.by === 'nothing'
      ? 'Somebody'
      : call.by === 'page'
        ? `Somebody on ${call.what}`
        : call.what;
  };

  const mailFor = (job: AlertMailJob, conversation: ConversationRecord): OutMail | null => {
    const member = store.members.byId(job.memberId);
    if (!member) return null;
    const business = store.business.read();
    const zone = business?.zone ?? 'UTC';
    const who = whoIn(conversation);
    const { subject, text, html } = renderAlertMail(
      {
        business: business?.name ?? '',
        who,
        since: momentIn(conversation.state.waitingSince ?? clock.now(), zone),
        isNote: groupOf(conversation.state) === 'note',
        ...slipsOf(conversation, who, zone),
        as: member.publicName || member.name,
        until: job.replyTo === null ? null : dayIn(job.expiresAt, zone),
        link: `${origin()}/line/${conversation.id}`,
      },
      en,
    );
    const host = new URL(origin()).hostname;
    return {
      to: member.email,
      fromName: business?.name ?? 'Hello Porch',
      replyTo: job.replyTo,
      subject,
      text,
      html,
      messageId: `<${newId()}@${host}>`,
      references: `<talk.${conversation.id}@${host}>`,
    };
  };

  const isOver = ({ talk }: AlertMailJob): boolean => {
    const standing = persons.standing(talk);
    return !standing || !isOpen(standing.id);
  };

  const rang = ({ talk, memberId }: AlertMailJob, failed: string | null): News[] => {
    const conversation = persons.standing(talk);
    if (!conversation) return [];
    const why = failed === null ? {} : { failed };
    const happening = { kind: 'rang' as const, memberId, by: 'mail' as const, ...why };
    return [record.add(conversation, null, [{ id: newId(), happening }])];
  };

  const kind: JobKind<AlertMailJob, 'sent' | 'over'> = {
    name: 'alert-mail',
    atOnce: 4,
    leaseMs: 90_000,
    triesMost: 8,
    firstWaitMs: 15_000,
    longestWaitMs: 15 * 60_000,
    do: async (job) => {
      const { outgoing } = mailSettings.now();
      const conversation = persons.standing(job.talk);
      if (!outgoing || !conversation || isOver(job)) return 'over';
      const password = mailSettings.outgoingPassword();
      if (password === null) throw new JobFailed('secret-sealed');
      const mail = mailFor(job, conversation);
      if (!mail) return 'over';
      const { why, isFinal } = await sendMail(outgoing, password, mail);
      if (why !== null) throw new JobFailed(why, isFinal);
      return 'sent';
    },
    note: (job, came) => (came === 'over' ? nothing : { result: null, news: rang(job, null) }),
    buried: (job, why) => ({ result: null, news: rang(job, why) }),
  };

  return {
    kind,
    /** Whether mail goes out at all. */
    canMail: (): boolean => mailSettings.now().outgoing !== null,
    /** Begins to write to people about a conversation. Call inside a transaction. */
    begin: (conversation: ConversationRecord, memberIds: readonly string[]): void => {
      if (mailSettings.now().outgoing === null) return;
      const base = mailSettings.replyBase();
      const round = newId();
      for (const memberId of memberIds) {
        if (!store.members.byId(memberId)) continue;
        const reply = base && replyAddresses.make(base, conversation.id, memberId);
        const job: AlertMailJob = {
          talk: conversation.id,
          memberId,
          replyTo: reply ? reply.address : null,
          expiresAt: reply ? reply.expiresAt : 0,
        };
        const key = `alert-mail ${round} ${memberId}`;
        store.jobs.add({ key, kind: kind.name, load: job, notBefore: clock.now() }, clock.now());
      }
    },
  };
};

export type AlertMails = ReturnType<typeof createAlertMails>;
