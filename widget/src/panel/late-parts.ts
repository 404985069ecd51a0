/** What of the panel comes only where it is wanted. In one piece: each of its own would cost more than it saves. */
export { Asked, AskedAll, Guide } from './asked';
export { CallBackForm } from './call-back';
export { EmojiFrame } from './emoji';
export { OrderForm } from './order';
export { OtherWays } from './other-ways';
export { Shelf } from './shelf';
