/** Stored answers: their gaps, their codes, what may be wrong with them, and how one is found. */
export {
  type Broken,
  GAP_LONGEST,
  type Gap,
  type GapName,
  gapCalled,
  gapNames,
  type Piece,
  piecesOf,
  type Stretch,
} from '../gaps';
export { type Findable, indexReplies, type RepliesIndex } from './choosing';
export { CODE_LONGEST, cleanCode, codeAt, type TypedCode } from './codes';
export {
  briefOf,
  type Filled,
  fillIn,
  type GapFacts,
  openGaps,
  type Stop,
  withoutGaps,
} from './fill';
export { firstNameOf } from './first-name';
export { codeFor, titleFor, toStored } from './from-answer';

export const REPLY_TITLE_LONGEST = 80;
export const REPLY_GROUP_LONGEST = 40;
/** More than anybody could find their way through. */
export const REPLIES_MOST = 1_000;
export const REPLY_PICTURES_MOST = 4;
