import type { Row } from '@porch/contract/entries';
import { words } from '../words';

/** What can be done with somebody's row, wherever it stands. */
export interface RowDeeds {
  open: (row: Row) => void;
  wrapUp: (row: Row) => void;
  putBy: (row: Row) => void;
  takeBack: (row: Row) => void;
  wrapUpAll: (rows: readonly Row[]) => void;
  putByAll: (rows: readonly Row[]) => void;
  takeBackAll: (rows: readonly Row[]) => void;
}

/** What these are called. */
export const deedNames = (): Record<'wrapUp' | 'putBy' | 'takeBack', string> => words().deeds;
