import { answerTimesTable } from './answer-times';
import { answersGivenTable } from './answers-given';
import { bellDevicesTable } from './bell-devices';
import { businessTable } from './business';
import { cardsTable } from './cards';
import { claimsTable } from './claims';
import { conversationsTable } from './conversations';
import type { Db } from './db';
import { deliveriesTable } from './deliveries';
import { doorbellsTable } from './doorbells';
import { doorsTable } from './doors';
import { dressesTable } from './dresses';
import { entriesTable } from './entries';
import { feedsTable } from './feeds';
import { filesTable } from './files';
import { findingsTable } from './findings';
import { followUpsTable } from './follow-ups';
import { greetingsTable } from './greetings';
import { heldMailsTable } from './held-mails';
import { hereTable } from './here';
import { hoursTable } from './hours';
import { houseSecretsTable } from './house-secrets';
import { jobsTable } from './jobs';
import { knownDevicesTable } from './known-devices';
import { lightsTable } from './lights';
import { likenessTable } from './likeness';
import { mailTable } from './mail';
import { mailFactsTable } from './mail-facts';
import { markTable } from './marks';
import { membersTable } from './members';
import { oneTimeLinksTable } from './one-time-links';
import { ordersTable } from './orders';
import { ownWordsTable } from './own-words';
import { picturesTable } from './pictures';
import { probeTable } from './probe';
import { promisesTable } from './promises';
import { quickRepliesTable } from './quick-replies';
import { roundsTable } from './rounds';
import { searchTable } from './search';
import { sessionsTable } from './sessions';
import { shelfTable } from './shelf';
import { sightingsTable } from './sightings';
import { threadsTable } from './threads';
import { ticksTable } from './ticks';
import { triesTable } from './tries';
import { visitorMailTable } from './visitor-mail';
import { warningsTable } from './warnings';
import { waysTable } from './ways';

export type { BellDeviceRecord } from './bell-devices';
export type { CardCount } from './cards';
export type { ConversationRecord } from './conversations';
export { newConversation, toRow, withThreads } from './conversations';
export { openBeside, openDatabase } from './database';
export type { DeliveryRecord } from './deliveries';
export type { DoorRecord } from './doors';
export type { PublishedRecord } from './dresses';
export type { Scope } from './entries';
export type { FileBytes, FileRecord } from './files';
export { toMention } from './files';
export type { GreetingCount } from './greetings';
export type { HeldMailRecord } from './held-mails';
export type { DeadJob, JobRecord, NewJob } from './jobs';
export type { ReplyAddressRecord } from './mail';
export type { MailPictureRecord } from './mail-facts';
export type { MemberRecord } from './members';
export type { LinkRecord } from './one-time-links';
export type { QuickReplyRecord } from './quick-replies';
export type { Round } from './rounds';
export type { ShelfPlace, ShelfRecord } from './shelf';
export type { SightingRecord } from './sightings';
export type { Stay, ThreadRecord, Writer } from './threads';
export { writerKey } from './threads';
export type { Tries } from './tries';
export type { VisitorAddressRecord } from './visitor-mail';
export type { WayRecord } from './ways';

/** Everything that is kept, one table a field; `atOnce` is the only way to write more than one thing. */
export const createStore = (db: Db) => {
  const inTransaction = db.transaction((work: () => unknown) => work());
  const doors = doorsTable(db);
  const threads = threadsTable(db);
  const conversations = conversationsTable(db);
  const business = businessTable(db);
  const members = membersTable(db);
  const mail = mailTable(db);
  const here = hereTable(db);
  const promises = promisesTable(db);
  const remembering = [doors, threads, conversations, business, members, mail, here, promises];

  /** Runs all of it in one transaction: whole or not at all. Inside another it is a savepoint. */
  const atOnce = <Result>(work: () => Result): Result => {
    const undoWithin = db.inTransaction ? conversations.beginWithin() : null;
    try {
      const result = inTransaction.immediate(work) as Result;
      if (!undoWithin) conversations.commit();
      return result;
    } catch (error) {
      for (const table of remembering) table.forget();
      if (undoWithin) undoWithin();
      else conversations.rollBack();
      throw error;
    }
  };

  return {
    business,
    members,
    sessions: sessionsTable(db),
    knownDevices: knownDevicesTable(db),
    warnings: warningsTable(db),
    findings: findingsTable(db),
    jobs: jobsTable(db),
    houseSecrets: houseSecretsTable(db),
    doorbells: doorbellsTable(db),
    bellDevices: bellDevicesTable(db),
    rounds: roundsTable(db),
    mail,
    visitorMail: visitorMailTable(db),
    heldMails: heldMailsTable(db),
    mailFacts: mailFactsTable(db),
    probe: probeTable(db),
    promises,
    here,
    lights: lightsTable(db),
    followUps: followUpsTable(db),
    feeds: feedsTable(db),
    tries: triesTable(db),
    doors,
    deliveries: deliveriesTable(db),
    dresses: dressesTable(db),
    pictures: picturesTable(db),
    sightings: sightingsTable(db),
    links: oneTimeLinksTable(db),
    ticks: ticksTable(db),
    hours: hoursTable(db),
    /** Up to where it was counted and learned; see `inbox/afterwards`. */
    afterwards: markTable(db, 'afterwards'),
    /** Up to where the rows of conversations are in step; see `inbox/rows-behind`. */
    rowsBehind: markTable(db, 'rows_behind'),
    answerTimes: answerTimesTable(db),
    answersGiven: answersGivenTable(db),
    threads,
    ways: waysTable(db),
    likeness: likenessTable(db),
    claims: claimsTable(db),
    conversations,
    entries: entriesTable(db),
    files: filesTable(db),
    quickReplies: quickRepliesTable(db),
    ownWords: ownWordsTable(db),
    cards: cardsTable(db),
    greetings: greetingsTable(db),
    orders: ordersTable(db),
    shelf: shelfTable(db),
    search: searchTable(db),
    atOnce,
    /**
     * The same without waiting for the disk, for what can be found again from what is there: where the power fails
     * before the next transaction that is waited for, it never happened.
     */
    derive: <Result>(work: () => Result): Result => {
      // Within a transaction it is waited for with that.
      if (db.inTransaction) return atOnce(work);
      db.pragma('synchronous = NORMAL');
      try {
        return atOnce(work);
      } finally {
        db.pragma('synchronous = FULL');
      }
    },
    close: (): void => {
      db.close();
    },
  };
};

export type Store = ReturnType<typeof createStore>;
