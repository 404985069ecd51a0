import type { ShelfSaid } from '../../conversation';

/** What stands before each free time in the lines of a card. */
export const TIME_MARK = '– ';

/** The free time that a line of a card says, or null. "– Monday 7 December, 09:00" → "Monday 7 December, 09:00" */
export const freeTimeIn = ({ kind }: Pick<ShelfSaid, 'kind'>, line: string): string | null =>
  kind === 'slots' && line.startsWith(TIME_MARK) ? line.slice(TIME_MARK.length) : null;
