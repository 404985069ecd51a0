export type {
  CallBack,
  Details,
  Entry,
  FileMention,
  Happening,
  HappeningKind,
  HeldBack,
  Owed,
  OwnAnswer,
  Page,
  Picked,
  SetAside,
  Step,
  Way,
} from './entry';
export {
  entryKinds,
  heldBackReasons,
  isForVisitor,
  isOfTheWhole,
  isOnTheRoll,
  pickedKinds,
  SCREEN,
  setAsideReasons,
  steps,
} from './entry';
export type { ConversationState, Group } from './reducer';
export { emptyConversation, fold, foldAll, groupOf, groups, UNREAD_KEPT } from './reducer';
export { type Amended, amendedIn, inOrderSaid } from './said';
export { searchableText } from './searchable';
export type { ThreadState } from './thread';
export {
  combine,
  emptyThread,
  FOLD_VERSION,
  foldThread,
  THREADS_MOST,
  threadWrittenLast,
} from './thread';
export { BODY_SHAPE, toToday } from './upcast';
export { type View, views, viewsOf } from './views';
