import type { Group } from '@porch/core/conversation';
import type { Stretch } from '../src/shell/live/cache';

/** A group of the line that shows every conversation. */
export const inAll = (group: Group): Stretch => ({ view: 'all', group });
