import type { Row } from '@porch/contract/entries';
import { words } from '../words';

/** Something that was said, and whether it was said by us. */
export const saidBy = (isOurs: boolean, text: string): string =>
  `${isOurs ? words().you : ''}${text}`;

/** The last words of a conversation, and whether they were ours. */
export const lastSaid = ({ state }: Row): string =>
  saidBy(state.lastBy === 'team', state.lastWords || words().file);
