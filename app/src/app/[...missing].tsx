import { router } from 'expo-router';
import { Button } from '../parts/press';
import { Empty } from '../parts/states';
import { words } from '../wording';

export { ErrorBoundary } from '../parts/error-boundary';

const Missing = () => (
  <Empty title={words.notFound.title} more={words.notFound.more}>
    <Button label={words.notFound.action} onPress={() => router.replace('/line')} />
  </Empty>
);

export default Missing;
