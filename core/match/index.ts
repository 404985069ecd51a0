/** Which stored texts answer a question, by the words that both have. */
export { type Evidence, FIT_LEAST, fitOf, fits } from './fitting';
export {
  type Background,
  createMatching,
  type Field,
  idfOf,
  isSlipOf,
  type Match,
  type Matching,
  type Stored,
  saturated,
} from './matching';
export { isPitch } from './pitches';
export { type Token, tokensOf } from './tokens';
