import { late } from '../kit/late';
import { RowsComing } from '../kit/states';

/**
 * Where people are answered, and where answers and what goes with them are stored: one part of the app, which comes
 * with the first of these places. What two parts both have would be loaded by everybody who opens the app.
 */
const load = () => import('./all-of-answering');
const shape = () => <RowsComing />;

export const Conversation = late(async () => (await load()).Conversation, shape);
export const Replies = late(async () => (await load()).Replies, shape);
export const ReplyEditor = late(async () => (await load()).ReplyEditor, shape);
export const ShelfList = late(async () => (await load()).ShelfList, shape);
export const OrderEditor = late(async () => (await load()).OrderEditor, shape);
export const OrdersScreen = late(async () => (await load()).OrdersScreen, shape);
export const ShelfEditor = late(async () => (await load()).ShelfEditor, shape);
