import { useLocalSearchParams } from 'expo-router';
import { DressingRoom } from '../../../features/dress/screens/dressing-room';

export { ErrorBoundary } from '../../../shell/offline/error-boundary';

const DressPlace = () => {
  const { id, part } = useLocalSearchParams<{ id: string; part?: string }>();
  return <DressingRoom key={id} id={id} asked={part} />;
};

export default DressPlace;
