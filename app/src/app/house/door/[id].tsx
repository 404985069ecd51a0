import { useLocalSearchParams } from 'expo-router';
import { DoorRoom } from '../../../screens/rooms/door';

export { ErrorBoundary } from '../../../parts/error-boundary';

const DoorPlace = () => {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <DoorRoom key={id} id={id} />;
};

export default DoorPlace;
