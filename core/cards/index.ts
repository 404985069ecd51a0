/** Questions that are asked often, and where their answers lead. */
export {
  ANSWER_LONGEST,
  type Asks,
  type Branch,
  CARDS_MOST,
  type Card,
  type CardProblem,
  type Cards,
  FIRST_CARDS_MOST,
  firstCards,
  problemsIn,
  QUESTION_LONGEST,
  STEPS_MOST,
  stepAfter,
  type Then,
  treeOf,
} from './cards';
