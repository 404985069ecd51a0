/** The shelf: what the business has to show, to be put into answers. */
export { isShelfKind, type ShelfKind, shelfKinds } from './kinds';
export { SHELF_SAID_MOST } from './most';
export { currencyOf, isCurrency, isPrice, priceFrom, priceInWords } from './price';
export {
  type Place,
  readShelfRow,
  type ShelfCells,
  type ShelfColumn,
  type ShelfRefusal,
  shelfCells,
  shelfColumns,
  toShelfCells,
} from './rows';
export {
  isOver,
  newThing,
  problemInThing,
  SHELF_MINUTES_MOST,
  SHELF_MOST,
  SHELF_STARTS_MOST,
  type ShelfField,
  type ShelfProblem,
  type ShelfThing,
  type Stock,
  shelfFields,
  shelfKey,
  shelfLongest,
  stocks,
  tidyThing,
} from './thing';
