import { wayKey } from '@porch/core/contact';
import { type Entry, SCREEN, type ThreadState } from '@porch/core/conversation';
import { chooseLanguage } from '@porch/core/door-texts';
import { languagesOf, textsOf } from '@porch/core/dress';
import { isSameAddress } from '@porch/core/mail';
import { mailAt } from '@porch/core/routes';
import { allFiles, wholeText } from '@porch/core/shelf/plain';
import { renderVisitorMail, type VisitorSlip } from '@porch/core/visitor-mail';
import { localeOf, momentIn } from '@porch/core/when';
import type { Clock } from '../clock';
import type { Dressing } from '../dress/dressing';
import type { Write } from '../inbox/batch';
import type { Persons } from '../inbox/persons';
import type { Follow, Record, Recording } from '../inbox/record';
import { keyInTurn, waitForTurn } from '../jobs/in-turn';
import { JobFailed, type JobKind } from '../jobs/worker';
import type { News, PersonAt } from '../live/hub';
import { newId } from '../security/tokens';
import type { ConversationRecord, Store } from '../store';
import type { ReplyAddresses } from './reply-addresses';
import { type OutMail, SEND_LONGEST_MS, sendMail } from './sending';
import type { MailSettingsKept } from './settings';

/** What a job that brings answers to a visitor by mail carries. */
export interface VisitorMailJob {
  threadId: string;
}

/** What went: the answers up to a seq, to an address, under a name. */
interface Gone {
  upTo: number;
  of: number[];
  to: string;
  messageId: string;
}
/** Why what had to go has no way: they left no address, want no mails, or mail was never set up here. */
export const noWays = ['no-email', 'mail-stopped', 'no-mail'] as const;
export type NoWay = (typeof noWays)[number];
/** Null: nothing had to go any more. */
type Went = Gone | { noWay: NoWay; of: number[]; to: string } | null;

type Said = Extract<Entry, { kind: 'visitor-said' | 'team-said' | 'door-sign' }>;

/** So much of what was said before is in a mail. */
const BEFORE_MOST = 20;
const READ_MOST = BEFORE_MOST * 4;

/** In so many conversations with the same address it is said that it wants no more. */
const STOPPED_TOLD_MOST = 50;

/** So many things owed are looked through for answers that had no way when mail is set up. */
const TRIED_AGAIN_MOST = 500;

/** An answer that comes later than this is worth nothing. */
const WORTH_MS = 3 * 24 * 3_600_000;

const stoppedAt = (address: string): Recording => ({
  id: newId(),
  happening: { kind: 'mail-stopped', address: address.trim().toLowerCase() },
});

const nothing = { result: null, news: [] };

const keyOf = (threadId: string): string => `visitor-mail ${threadId}`;

/** Answers that reach a visitor by mail, because they have gone without reading them. */
export const createVisitorMails = (services: {
  store: Store;
  clock: Clock;
  write: Write;
  persons: Persons;
  record: Record;
  mailSettings: MailSettingsKept;
  replyAddresses: ReplyAddresses;
  dressing: Pick<Dressing, 'published'>;
  personAt: PersonAt;
  origin: () => string;
}) => {
  const { store, clock, write, persons, record, mailSettings, replyAddresses } = services;
  const { dressing, personAt, origin } = services;
  /** What is just going out, by thread: a server may send it back before it is noted that it went. */
  const going = new Map<string, { upTo: number; isBack: boolean }>();

  const threadIn = ({ threads }: ConversationRecord, id: string): ThreadState | null =>
    threads.find(({ threadId }) => threadId === id) ?? null;

  const saidIn = (threadId: string): Said[] =>
    store.entries
      .threadBefore(threadId, Number.MAX_SAFE_INTEGER, READ_MOST)
      .filter(
        (entry): entry is Said =>
          entry.kind === 'visitor-said' || entry.kind === 'team-said' || entry.kind === 'door-sign',
      );

  /** What the visitor has not read and no mail has brought, oldest first. */
  const freshOf = (thread: ThreadState, said: readonly Said[]): Said[] => {
    const known = Math.max(thread.visitorReadSeq, store.visitorMail.mailedUpTo(thread.threadId));
    return said.filter(
      (entry) => entry.kind === 'team-said' && entry.way === SCREEN && entry.seq > known,
    );
  };

  /** Why nothing that somebody has not read could be brought to them by mail; null: it could. */
  const noWayTo = ({ email }: ThreadState): NoWay | null => {
    if (email === '') return 'no-email';
    if (store.visitorMail.isStopped(email)) return 'mail-stopped';
    return mailSettings.canAnswer() ? null : 'no-mail';
  };

  const slipsOf = (thread: ThreadState, said: readonly Said[], language: string): VisitorSlip[] => {
    const kept = store.business.read();
    const zone = thread.zone || kept?.zone || 'UTC';
    const locale = localeOf(language, kept?.country ?? '');
    const business = kept?.name ?? '';
    const whoOf = (entry: Said): string => {
      if (entry.kind === 'visitor-said') return '';
      return entry.kind === 'door-sign' ? business : personAt(entry.memberId, thread.doorId).name;
    };
    return said.map((entry) => ({
      who: whoOf(entry),
      when: momentIn({ locale, zone }, entry.at, clock.now()),
      text: entry.kind === 'team-said' ? wholeText(entry) : entry.text,
      files: entry.kind === 'door-sign' ? [] : allFiles(entry).map(({ name }) => name),
    }));
  };

  const mailFor = (
    thread: ThreadState,
    fresh: readonly Said[],
    said: readonly Said[],
  ): { mail: OutMail; went: Gone } | null => {
    const base = mailSettings.replyBase();
    const reply = base && replyAddresses.makeForVisitor(base, thread.threadId, thread.email);
    if (!reply) return null;
    const dress = dressing.published(thread.doorId);
    const language = chooseLanguage([thread.language], languagesOf(dress), dress.fallback);
    const business = store.business.read()?.name ?? '';
    const firstSeq = fresh[0]?.seq ?? 0;
    const upTo = fresh.at(-1)?.seq ?? 0;
    const host = new URL(origin()).hostname;
    const rendered = renderVisitorMail({
      business,
      language,
      texts: textsOf(dress, language),
      colours: dress.look,
      fresh: slipsOf(thread, fresh, language),
      before: slipsOf(
        thread,
        said.filter(({ seq }) => seq < firstSeq).slice(-BEFORE_MOST),
        language,
      ),
      stopLink: `${origin()}/mail/stop/${reply.detail}`,
    });
    // The same name for the same answers: a mail that goes twice is shown once.
    const messageId = `<answers.${thread.threadId}.${upTo}@${host}>`;
    const known = store.visitorMail.idsOf(thread.threadId);
    return {
      mail: {
        to: thread.email,
        fromName: business,
        replyTo: reply.address,
        ...rendered,
        subject: known.length > 0 ? `Re: ${rendered.subject}` : rendered.subject,
        messageId,
        references: known,
        isPersons: true,
        bouncesTo: reply.address,
        stop: `${origin()}/mail/stop/${reply.detail}`,
      },
      went: { upTo, of: fresh.map(({ seq }) => seq), to: thread.email, messageId },
    };
  };

  const noted = (threadId: string, of: readonly number[], to: string, failed?: string): News[] => {
    const conversation = persons.standing(threadId);
    if (!conversation) return [];
    const why = failed === undefined ? {} : { failed };
    const happening = { kind: 'mailed' as const, of: [...of], to, ...why };
    return [record.add(conversation, threadId, [{ id: newId(), happening }])];
  };

  const standing = (threadId: string): ThreadState | null => {
    const conversation = persons.standing(threadId);
    return conversation && threadIn(conversation, threadId);
  };

  /** Of what is to go the part that was handed over before, where nobody knows whether it was taken. */
  const begunOf = ({ threadId }: ThreadState, fresh: readonly Said[]): readonly Said[] => {
    const upTo = store.visitorMail.begunUpTo(threadId) ?? 0;
    const begun = fresh.filter(({ seq }) => seq <= upTo);
    return begun.length > 0 ? begun : fresh;
  };

  /** What was said while a mail was on its way goes after it. Call in the transaction that notes it. */
  const goOn = (threadId: string): void => {
    const thread = standing(threadId);
    if (!thread || freshOf(thread, saidIn(threadId)).length === 0) return;
    const load: VisitorMailJob = { threadId };
    const job = { key: keyOf(threadId), kind: kind.name, load, notBefore: clock.now() };
    store.jobs.schedule(job, clock.now());
  };

  const kind: JobKind<VisitorMailJob, Went> = {
    name: 'visitor-mail',
    atOnce: 4,
    leaseMs: SEND_LONGEST_MS,
    triesMost: 12,
    // A mail server may be away for days.
    worth: (_job, madeAt) => ({ until: madeAt + WORTH_MS, why: null }),
    firstWaitMs: 30_000,
    longestWaitMs: 5 * 60_000,
    do: async ({ threadId }, { key }) => {
      waitForTurn(store, key, keyOf(threadId));
      const thread = standing(threadId);
      const { outgoing } = mailSettings.now();
      if (!thread || thread.isHere) return null;
      const said = saidIn(threadId);
      const fresh = begunOf(thread, freshOf(thread, said));
      if (fresh.length === 0) return null;
      const noWay = noWayTo(thread);
      if (noWay || !outgoing) {
        // What came to their screen before they went has reached them, whether they read it or not.
        const of = fresh.map(({ seq }) => seq).filter((seq) => seq > thread.visitorHasSeq);
        return of.length > 0 ? { noWay: noWay ?? 'no-mail', of, to: thread.email } : null;
      }
      const password = mailSettings.outgoingPassword();
      if (password === null) throw new JobFailed('secret-sealed');
      const made = mailFor(thread, fresh, said);
      if (!made) throw new JobFailed('secret-sealed');
      const { upTo } = made.went;
      going.set(threadId, { upTo, isBack: false });
      if (store.visitorMail.begunUpTo(threadId) !== upTo) {
        await write(() => {
          store.visitorMail.begin(threadId, upTo);
          return nothing;
        });
      }
      const { why, isFinal } = await sendMail(outgoing, password, made.mail);
      if (why !== null) throw new JobFailed(why, isFinal);
      return made.went;
    },
    note: ({ threadId }, went) => {
      store.visitorMail.end(threadId);
      if (!went) return nothing;
      if ('noWay' in went) {
        const { unreached } = standing(threadId) ?? {};
        const isKnown = unreached?.why === went.noWay && unreached.upTo >= (went.of.at(-1) ?? 0);
        return {
          result: null,
          news: isKnown ? [] : noted(threadId, went.of, went.to, went.noWay),
        };
      }
      store.visitorMail.note(threadId, clock.now(), went.messageId, went.upTo);
      const isBack = going.get(threadId)?.isBack ?? false;
      going.delete(threadId);
      goOn(threadId);
      if (isBack) return nothing;
      return { result: null, news: noted(threadId, went.of, went.to) };
    },
    buried: ({ threadId }, why) => {
      store.visitorMail.end(threadId);
      const thread = standing(threadId);
      const fresh = thread ? freshOf(thread, saidIn(threadId)) : [];
      if (!thread || fresh.length === 0) return nothing;
      const of = fresh.map(({ seq }) => seq);
      return { result: null, news: noted(threadId, of, thread.email, why) };
    },
  };

  /** Lets answers go out by mail in their time, where there are any that somebody gone has not read. */
  const consider = (conversation: ConversationRecord, threadId: string, afterMs: number): void => {
    const thread = threadIn(conversation, threadId);
    if (!thread || thread.isHere || !(thread.email || thread.phone)) return;
    const last = freshOf(thread, saidIn(threadId)).at(-1);
    const at = last ? mailAt(thread, last.at, afterMs) : null;
    if (at === null) return;
    const load: VisitorMailJob = { threadId };
    // What is on its way is not begun anew: what comes meanwhile goes after it.
    const key = keyInTurn(store, keyOf(threadId));
    const job = { key, kind: kind.name, load, notBefore: at };
    store.jobs.schedule({ ...job, waitMs: Math.max(0, at - clock.now()) }, clock.now());
  };

  return {
    kind,
    noWayTo,
    /** Mail was set up, or set up otherwise: what had no way goes out, where it is still worth it. */
    tryAgain: (): void => {
      const since = clock.now() - WORTH_MS;
      for (const { conversationId, madeAt } of store.followUps.due(null, TRIED_AGAIN_MOST)) {
        const conversation = persons.standing(conversationId);
        if (!conversation || madeAt < since) continue;
        for (const { threadId, unreached } of conversation.threads) {
          if (unreached?.why === 'no-mail') consider(conversation, threadId, 0);
        }
      }
    },
    follow:
      (afterMs: () => number): Follow =>
      (_was, now, entries) => {
        for (const { kind: what, threadId } of entries) {
          const matters = what === 'team-said' || what === 'gone' || what === 'details';
          if (threadId && matters) consider(now, threadId, afterMs());
        }
        return entries.flatMap((entry) => {
          const { email = '', mailStopped = '' } =
            threadIn(now, (entry.kind === 'details' && entry.threadId) || '') ?? {};
          const isNews =
            email !== '' &&
            store.visitorMail.isStopped(email) &&
            !isSameAddress(email, mailStopped);
          return isNews ? [stoppedAt(email)] : [];
        });
      },
    /** Nothing more goes to an address; whoever is written to there is said not to want it. Once is enough. */
    stop: (address: string): News[] => {
      if (store.visitorMail.isStopped(address)) return [];
      store.visitorMail.stop(address, clock.now());
      const ways = store.ways.by('email', wayKey('email', address, ''), STOPPED_TOLD_MOST);
      const talks = new Map(
        ways.flatMap(({ threadId }) => {
          const conversation = persons.standing(threadId);
          return conversation ? [[conversation.id, conversation] as const] : [];
        }),
      );
      return [...talks.values()].map((talk) => record.add(talk, null, [stoppedAt(address)]));
    },
    /** A mail did not arrive: the answers that it brought are said not to have, and are owed again. */
    bounced: (threadId: string, why: string): News[] => {
      const now = going.get(threadId);
      if (now) now.isBack = true;
      const upTo = Math.max(store.visitorMail.mailedUpTo(threadId), now?.upTo ?? 0);
      const of = saidIn(threadId).filter((one) => one.kind === 'team-said' && one.seq <= upTo);
      const last = of.at(-1);
      const thread = standing(threadId);
      return last && thread ? noted(threadId, [last.seq], thread.email, why) : [];
    },
  };
};

export type VisitorMails = ReturnType<typeof createVisitorMails>;
