import type { Row } from '@porch/contract/entries';
import { words } from '../words';

/** The last words of a conversation, and whether they were ours. */
export const lastSaid = ({ state }: Row): string =>
  `${state.lastBy === 'team' ? words().you : ''}${state.lastWords || words().file}`;
