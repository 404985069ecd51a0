export { ReplyEditor } from '../features/replies/screens/editor';
export { Replies } from '../features/replies/screens/list';
export { Conversation } from '../features/talk/screens/conversation';
