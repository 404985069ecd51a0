import type { Group } from '@porch/core/conversation';
import { words } from '../words';

/** What a group of the line is called. */
export const groupName = (group: Group): string => words().groups[group];
