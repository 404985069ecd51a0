export type {
  Asks,
  CallBack,
  CardSaid,
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
  ShelfSaid,
  Step,
  Tapped,
  Way,
} from './entry';
export {
  askedFields,
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
export { isQuiet } from './quiet';
export type { ConversationState, Group } from './reducer';
export { emptyConversation, fold, foldAll, groupOf, groups, UNREAD_KEPT } from './reducer';
export { type Amended, amendedIn, type Came, cameIn, filesOf, inOrderSaid } from './said';
export { searchableText } from './searchable';
export type { ThreadState } from './thread';
export {
  combine,
  emptyThread,
  FOLD_VERSION,
  foldThread,
  THREADS_MOST,
  threadMeant,
  threadWrittenLast,
} from './thread';
export { BODY_SHAPE, toToday } from './upcast';
export { type View, views, viewsOf } from './views';
