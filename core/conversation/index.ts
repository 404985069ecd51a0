export type {
  Details,
  Entry,
  FileMention,
  Happening,
  HappeningKind,
  OwnAnswer,
  Page,
} from './entry';
export { entryKinds, isForVisitor, isOnTheRoll } from './entry';
export type { ConversationState, Group } from './reducer';
export { emptyConversation, fold, foldAll, groupOf, groups, UNREAD_KEPT } from './reducer';
export { searchableText } from './searchable';
