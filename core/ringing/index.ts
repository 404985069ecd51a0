export type {
  AlertDeed,
  Cause,
  Doorbell,
  MessageChoice,
  Occasion,
  QuietChoice,
  QuietHours,
  Sound,
} from './doorbell';
export {
  alertDeeds,
  causes,
  isOnPage,
  isQuiet,
  messageChoices,
  PAGE_PATH_LONGEST,
  PAGES_MOST,
  plainDoorbell,
  quietChoices,
  rings,
  SHORT_REPLY_LONGEST,
  sounds,
} from './doorbell';
export type { BareLoad, Facts, HushLoad, PushLoad, RingLoad, TrialLoad } from './load';
export { bareOf, LOAD_LARGEST_BYTES, ringLoadFor } from './load';
export type { Called, Ringable, RingOn, RingOnStep } from './round';
export {
  isConcerned,
  plainRingOn,
  RING_ON_LONGEST_MS,
  RING_ON_SHORTEST_MS,
  ringOnSteps,
  stepsFrom,
  whoRings,
  whoRingsOn,
} from './round';
export type { RungLine, RungPerson } from './rung';
export { isRungLine, withRungLines } from './rung';
