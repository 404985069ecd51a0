import type { Role } from '@porch/contract/people';
import { words } from '../words';

/** What somebody is on the team. */
export const roleName = (role: Role): string => words().team[role];
