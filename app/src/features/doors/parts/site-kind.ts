import { words } from '../words';

/** What a door is called that stands on websites, by those who answer there. */
export const siteKind = (): string => words().kind;
