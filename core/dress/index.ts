export type { DressProblem } from './check';
export { dressProblems, gapsFor, problemsOf, tidyDress } from './check';
export type {
  AnswerManner,
  AskedField,
  ClosedManner,
  Dress,
  GuestBookPage,
  Hello,
  LinkGlyph,
  OwnField,
  PhonePlate,
  PlaceLink,
  PlateShape,
  TextSize,
} from './dress';
export {
  answerManners,
  closedManners,
  linkGlyphs,
  phonePlates,
  plainDress,
  plateShapes,
  SUBJECT,
  textSizes,
  wholeDress,
} from './dress';
export { DRESS_LIMITS } from './limits';
export type { Clash, Merged, Path } from './merge';
export { mergeChanges, withAt } from './merge';
export type { PlateView } from './plate';
export { plateViewOf } from './plate';
export type { PanelSize, Typeface } from './type';
export { panelPixels, panelSizes, stackOf, typefaces } from './type';
export type {
  DoorRules,
  DoorView,
  ShownBusiness,
  ShownCard,
  ShownField,
  ShownGuestBook,
  ShownLink,
  ShownPerson,
} from './view';
export { languagesOf, rulesOf, textsOf, viewOf } from './view';
