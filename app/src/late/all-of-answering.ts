export { OrderEditor } from '../features/orders/screens/order';
export { OrdersScreen } from '../features/orders/screens/orders';
export { ReplyEditor } from '../features/replies/screens/editor';
export { Replies } from '../features/replies/screens/list';
export { ShelfEditor } from '../features/shelf/screens/editor';
export { ShelfList } from '../features/shelf/screens/list';
export { Conversation } from '../features/talk/screens/conversation';
