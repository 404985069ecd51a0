import { Empty } from '../../parts/states';
import { LineColumn } from '../../screens/line-column';
import { useWide } from '../../theme/use-wide';
import { words } from '../../wording';

export { ErrorBoundary } from '../../parts/error-boundary';

const Line = () => {
  const isWide = useWide();
  if (!isWide) return <LineColumn />;
  return <Empty title={words.conversation.none} more={words.conversation.noneMore} />;
};

export default Line;
