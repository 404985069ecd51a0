export { OweSheet } from './owe-sheet';
export { PutBySheet } from './put-by-sheet';
