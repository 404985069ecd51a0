import type { Db } from './db';
import first from './migrations/0001-first.sql';
import doorsAndTeam from './migrations/0002-doors-and-team.sql';
import whatHeldNot from './migrations/0003-what-held-not.sql';
import threads from './migrations/0004-threads.sql';
import jobs from './migrations/0005-jobs.sql';
import doors from './migrations/0006-doors.sql';
import doorbell from './migrations/0007-doorbell.sql';
import mail from './migrations/0008-mail.sql';
import hours from './migrations/0009-hours.sql';
import followUps from './migrations/0010-follow-ups.sql';
import visitorMail from './migrations/0011-visitor-mail.sql';
import heldMails from './migrations/0012-held-mails.sql';
import networks from './migrations/0013-networks.sql';
import mailFacts from './migrations/0014-mail-facts.sql';
import likeness from './migrations/0015-likeness.sql';
import quickReplies from './migrations/0016-quick-replies.sql';
import answersGiven from './migrations/0017-answers-given.sql';
import cards from './migrations/0018-cards.sql';
import greetings from './migrations/0019-greetings.sql';
import orders from './migrations/0020-orders.sql';
import shelf from './migrations/0021-shelf.sql';
import jobsInLanes from './migrations/0022-jobs-in-lanes.sql';
import mailBegun from './migrations/0023-mail-begun.sql';
import afterwards from './migrations/0024-afterwards.sql';
import whomAMailIsAbout from './migrations/0025-whom-a-mail-is-about.sql';
import reachedAt from './migrations/0026-reached-at.sql';
import rowsBehind from './migrations/0027-rows-behind.sql';
import here from './migrations/0028-here.sql';
import newestOrders from './migrations/0029-newest-orders.sql';
import whomALinkIsFor from './migrations/0030-whom-a-link-is-for.sql';

/** In order; a migration that has shipped is never edited, only followed. */
export const migrations: readonly string[] = [
  first,
  doorsAndTeam,
  whatHeldNot,
  threads,
  jobs,
  doors,
  doorbell,
  mail,
  hours,
  followUps,
  visitorMail,
  heldMails,
  networks,
  mailFacts,
  likeness,
  quickReplies,
  answersGiven,
  cards,
  greetings,
  orders,
  shelf,
  jobsInLanes,
  mailBegun,
  afterwards,
  whomAMailIsAbout,
  reachedAt,
  rowsBehind,
  here,
  newestOrders,
  whomALinkIsFor,
];

/** The data was written by a program that knows more than this one: it is refused rather than guessed at. */
export class NewerData extends Error {}

export const versionOf = (db: Db): number => db.pragma('user_version', { simple: true }) as number;

/** Whether rows refer to what is not there, by table; [] when all is well. */
const dangling = (db: Db): string[] => [
  ...new Set((db.pragma('foreign_key_check') as { table: string }[]).map(({ table }) => table)),
];

/**
 * Brings a database from the version it has to `target` (default: the newest), all steps in one transaction:
 * whole or not at all, also when the process is killed meanwhile. References are not followed while it runs,
 * so that a table that others refer to can be made anew (a table is dropped row by row otherwise, and takes
 * what refers to it along); before the commit every reference must hold. That switch does nothing inside a
 * transaction, so it is turned around the whole (sqlite.org/lang_altertable.html, 7).
 */
export const migrate = (
  db: Db,
  target: number = migrations.length,
  steps: readonly string[] = migrations,
): void => {
  const has = versionOf(db);
  if (has > steps.length) {
    throw new NewerData(`The data is of version ${has}; this program knows up to ${steps.length}.`);
  }
  if (has >= target) return;
  const isFollowed = db.pragma('foreign_keys', { simple: true });
  db.pragma('foreign_keys = OFF');
  try {
    db.transaction(() => {
      for (const sql of steps.slice(has, target)) db.exec(sql);
      const broken = dangling(db);
      if (broken.length > 0) {
        throw new Error(`Rows of ${broken.join(', ')} would refer to what is not there.`);
      }
      db.pragma(`user_version = ${target}`);
    }).immediate();
  } finally {
    db.pragma(`foreign_keys = ${isFollowed}`);
  }
};
