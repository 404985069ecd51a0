/** Questions that are asked often, and where their answers lead. */
export {
  ANSWER_LONGEST,
  ASKED_FOR_LONGEST,
  type Branch,
  CARD_LINK_LONGEST,
  CARD_PICTURES_MOST,
  CARDS_MOST,
  type Card,
  type CardProblem,
  type Cards,
  cardsIn,
  FIRST_CARDS_MOST,
  FURTHER_MOST,
  firstCards,
  type Leads,
  problemsIn,
  QUESTION_LONGEST,
  STEPS_MOST,
  type Step,
  stepAfter,
  toldOf,
  treeOf,
} from './cards';
export { withCard, withMoved, withoutCard, withStates } from './changes';
export {
  type CardRow,
  type CardRowRefusal,
  cardColumns,
  type RowsTaken,
  toCardRows,
  withCardRows,
} from './rows';
