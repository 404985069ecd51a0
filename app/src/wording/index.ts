import { isErrorCode } from '@porch/contract/errors';
import { en } from './en';

export type { Wording } from './en';

/** The wording in use. */
export const words = en;

/** Why something did not go out or did not happen, by its code. */
export const whyInWords = (why: string): string => {
  if (isErrorCode(why)) return words.refusal({ code: why });
  return words.whys[why] ?? words.whyUnknown;
};
