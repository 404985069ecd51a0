import { useLocalSearchParams } from 'expo-router';
import { DoorHours } from '../../features/hours/screens/door-hours';
import { HoursScreen } from '../../features/hours/screens/hours';

export { ErrorBoundary } from '../../shell/offline/error-boundary';

/** The hours of the house, or of a door that keeps its own: one place, so that what both need is loaded with it. */
const HoursPlace = () => {
  const { door } = useLocalSearchParams<{ door?: string }>();
  return door ? <DoorHours key={door} id={door} /> : <HoursScreen />;
};

export default HoursPlace;
