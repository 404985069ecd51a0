import { router } from 'expo-router';
import { Button } from '../kit/press';
import { Empty } from '../kit/states';
import { shellWords } from '../shell/words';

export { ErrorBoundary } from '../shell/offline/error-boundary';

const Missing = () => (
  <Empty title={shellWords().notFound.title} more={shellWords().notFound.more}>
    <Button label={shellWords().notFound.action} onPress={() => router.replace('/line')} />
  </Empty>
);

export default Missing;
