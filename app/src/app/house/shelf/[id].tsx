import { useLocalSearchParams } from 'expo-router';
import { ShelfEditor } from '../../../late/answering';

export { ErrorBoundary } from '../../../shell/offline/error-boundary';

/** Something on the shelf, or something new. */
const ShelfPlace = () => {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <ShelfEditor key={id} id={id} />;
};

export default ShelfPlace;
