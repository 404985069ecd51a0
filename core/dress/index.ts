export type { DressProblem } from './check';
export { gapsFor, problemsOf, tidyDress } from './check';
export type {
  AskedField,
  Dress,
  GuestBookPage,
  OwnField,
  PlateShape,
  TextSize,
} from './dress';
export { plainDress, plateShapes, textSizes } from './dress';
export { DRESS_LIMITS } from './limits';
export type { Clash, Merged, Path } from './merge';
export { mergeChanges, withAt } from './merge';
export type { PlateView } from './plate';
export { plateViewOf } from './plate';
export type {
  DoorRules,
  DoorView,
  ShownBusiness,
  ShownField,
  ShownGuestBook,
  ShownPerson,
} from './view';
export { languagesOf, rulesOf, textsOf, viewOf } from './view';
