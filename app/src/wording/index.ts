import { en } from './en';

export type { Wording } from './en';

/** The wording in use. */
export const words = en;
