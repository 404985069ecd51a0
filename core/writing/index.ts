/** What may be wrong in a text that is stored to be sent many times. */
export {
  FINDINGS_MOST,
  type Finding,
  findingsIn,
  findingsWithoutGaps,
  withInstead,
  wordsToSpell,
} from './findings';

/** Words of the business that no dictionary has. */
export const OWN_WORDS_MOST = 2_000;
export const WORD_LONGEST = 60;
