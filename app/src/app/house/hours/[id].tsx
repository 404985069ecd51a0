import { useLocalSearchParams } from 'expo-router';
import { DoorHours } from '../../../features/hours/screens/door-hours';

export { ErrorBoundary } from '../../../shell/offline/error-boundary';

const DoorPlace = () => {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <DoorHours key={id} id={id} />;
};

export default DoorPlace;
