import { en, type MailSlip, renderAlertMail } from '@porch/core/alert-mail';
import { cameIn, type Entry, filesOf, groupOf, threadMeant } from '@porch/core/conversation';
import { allFiles, wholeText } from '@porch/core/shelf/plain';
import type { Clock } from '../clock';
import { calledOf } from '../doors/called';
import type { Persons } from '../inbox/persons';
import type { Record } from '../inbox/record';
import { JobFailed, type JobKind } from '../jobs/worker';
import type { News } from '../live/hub';
import { newId } from '../security/tokens';
import type { ConversationRecord, Store } from '../store';
import type { ReplyAddresses } from './reply-addresses';
import { messageIdOf, type OutMail, SEND_LONGEST_MS, sendMail } from './sending';
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
/** Among so many entries of the roll they are looked for. */
const READ_MOST = SLIPS_MOST * 4;

/** An alert that comes later than this says nothing any more. */
const ALERT_WORTH_MS = 4 * 3_600_000;

const nothing = { result: null, news: [] };

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

  const slipsOf = (conversation: ConversationRecord) => {
    const read = store.entries.rollBefore(
      persons.scopeOf(conversation),
      Number.MAX_SAFE_INTEGER,
      READ_MOST,
    );
    const said = read.filter(
      (entry): entry is Extract<Entry, { kind: 'visitor-said' | 'team-said' }> =>
        entry.kind === 'visitor-said' || entry.kind === 'team-said',
    );
    const came = cameIn(read);
    const slips = said.slice(-SLIPS_MOST).map(
      (entry): MailSlip => ({
        by: entry.kind === 'team-said' ? (store.members.shownOf(entry.memberId)?.name ?? '') : null,
        at: entry.at,
        text: wholeText(entry),
        files: entry.kind === 'team-said' ? allFiles(entry) : filesOf(entry, came.get(entry.seq)),
      }),
    );
    return { slips, hasEarlier: said.length > SLIPS_MOST || read.length === READ_MOST };
  };

  const mailFor = (
    job: AlertMailJob,
    key: string,
    conversation: ConversationRecord,
  ): OutMail | null => {
    const member = store.members.byId(job.memberId);
    if (!member) return null;
    const business = store.business.read();
    const { subject, text, html } = renderAlertMail(
      {
        business: business?.name ?? '',
        zone: business?.zone ?? 'UTC',
        called: calledOf(store, conversation),
        since: conversation.state.waitingSince ?? clock.now(),
        isNote: groupOf(conversation.state) === 'note',
        ...slipsOf(conversation),
        as: member.publicName || member.name,
        until: job.replyTo === null ? null : job.expiresAt,
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
      messageId: messageIdOf('alert', key, origin()),
      references: [`<talk.${conversation.id}@${host}>`],
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
    leaseMs: SEND_LONGEST_MS,
    triesMost: 8,
    worth: (_job, madeAt) => ({ until: madeAt + ALERT_WORTH_MS, why: null }),
    firstWaitMs: 15_000,
    longestWaitMs: 5 * 60_000,
    do: async (job, { key }) => {
      const { outgoing } = mailSettings.now();
      const conversation = persons.standing(job.talk);
      if (!outgoing || !conversation || isOver(job)) return 'over';
      const password = mailSettings.outgoingPassword();
      if (password === null) throw new JobFailed('secret-sealed');
      const mail = mailFor(job, key, conversation);
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
    /** Begins to write to people about a conversation, and gives to whom. Call inside a transaction. */
    begin: (conversation: ConversationRecord, memberIds: readonly string[]): readonly string[] => {
      if (!mailSettings.goesOut()) return [];
      const base = mailSettings.replyBase();
      const round = newId();
      const known = memberIds.filter((id) => store.members.byId(id));
      const whom = threadMeant(conversation.threads)?.threadId ?? '';
      for (const memberId of known) {
        const reply = base && replyAddresses.make(base, conversation.id, whom, memberId);
        const job: AlertMailJob = {
          talk: conversation.id,
          memberId,
          replyTo: reply ? reply.address : null,
          expiresAt: reply ? reply.expiresAt : 0,
        };
        const key = `alert-mail ${round} ${memberId}`;
        store.jobs.add({ key, kind: kind.name, load: job, notBefore: clock.now() }, clock.now());
      }
      return known;
    },
  };
};

export type AlertMails = ReturnType<typeof createAlertMails>;
