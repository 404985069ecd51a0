import { useLocalSearchParams } from 'expo-router';
import { WebsiteDoor } from '../../../features/doors/screens/door';

export { ErrorBoundary } from '../../../shell/offline/error-boundary';

const DoorPlace = () => {
  const { id } = useLocalSearchParams<{ id: string }>();
  return <WebsiteDoor key={id} id={id} />;
};

export default DoorPlace;
