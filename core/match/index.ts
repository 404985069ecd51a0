/** Which stored texts answer a question, by the words that both have. */
export { FIT_LEAST, fits } from './fitting';
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
export { type Token, tokensOf } from './tokens';
