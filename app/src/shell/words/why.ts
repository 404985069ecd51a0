import { isErrorCode } from '@porch/contract/errors';
import { shellWords } from '.';

/** Why something did not go out or did not happen, by its code. */
export const whyInWords = (why: string): string => {
  const words = shellWords();
  if (isErrorCode(why)) return words.refusal({ code: why });
  return words.whys[why] ?? words.whyUnknown;
};
