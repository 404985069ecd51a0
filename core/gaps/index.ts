/** Gaps in texts that are stored to be sent many times: where they stand, and what they are called. */
export { type GapName, gapCalled, gapNames } from './names';
export { type Broken, GAP_LONGEST, type Gap, type Piece, piecesOf, type Stretch } from './pieces';
