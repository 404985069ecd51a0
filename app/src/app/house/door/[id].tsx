import { useLocalSearchParams } from 'expo-router';
import { DoorScreen } from '../../../features/doors/screens/door';

export { ErrorBoundary } from '../../../shell/offline/error-boundary';

const DoorPlace = () => {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <DoorScreen key={id} id={id} />;
};

export default DoorPlace;
