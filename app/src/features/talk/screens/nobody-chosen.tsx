import { Empty } from '../../../kit/states';
import { words } from '../words';

/** Beside the line of a wide screen, before a conversation was chosen from it. */
export const NobodyChosen = () => (
  <Empty title={words().conversation.none} more={words().conversation.noneMore} />
);
