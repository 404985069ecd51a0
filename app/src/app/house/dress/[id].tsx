import { useLocalSearchParams } from 'expo-router';
import { DressingRoom } from '../../../screens/dress/dressing-room';

export { ErrorBoundary } from '../../../parts/error-boundary';

const DressPlace = () => {
  const { id, part } = useLocalSearchParams<{ id: string; part?: string }>();
  return <DressingRoom key={id} id={id} asked={part} />;
};

export default DressPlace;
