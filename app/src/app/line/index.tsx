import { LineColumn } from '../../features/line/screens/line-column';
import { NobodyChosen } from '../../features/talk/screens/nobody-chosen';
import { useWide } from '../../kit/theme/use-wide';
import { prepareConversation, setupLeft } from './_layout';

export { ErrorBoundary } from '../../shell/offline/error-boundary';

const Line = () => {
  const isWide = useWide();
  return isWide ? (
    <NobodyChosen />
  ) : (
    <LineColumn prepare={prepareConversation} whenEmpty={setupLeft} />
  );
};

export default Line;
