import { useLocalSearchParams } from 'expo-router';
import { isStep, Walk } from '../features/walk/screens/walk';

export { ErrorBoundary } from '../shell/offline/error-boundary';

const WalkPlace = () => {
  const { step } = useLocalSearchParams<{ step?: string }>();
  return <Walk asked={isStep(step) ? step : null} />;
};

export default WalkPlace;
