import { words } from '../words';

/** The way to the mail's settings: what it is, and a line about it. */
export const mailWay = () => ({ title: words().place, more: words().placeMore });
