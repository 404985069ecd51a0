import { useLocalSearchParams } from 'expo-router';
import { DoorRoom } from '../../../features/doors/screens/door';

export { ErrorBoundary } from '../../../shell/offline/error-boundary';

const DoorPlace = () => {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <DoorRoom key={id} id={id} />;
};

export default DoorPlace;
