export {
  askedId,
  type DueGroup,
  dueGroupOf,
  dueGroups,
  type FollowUp,
  foldFollowUp,
  followUpOf,
  isAnswerOwed,
  isAskedId,
  OWED_AHEAD_MS,
  OWED_LONGEST,
  type Owing,
  owings,
} from './follow-ups';
export {
  GRACE_LONGEST_MINUTES,
  LATE_BACK_SOON_MS,
  type LateWay,
  lateWays,
  MAIL_AFTER_LONGEST_MINUTES,
  type Promises,
  plainPromises,
} from './promises';
