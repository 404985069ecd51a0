import { useLocalSearchParams } from 'expo-router';
import { isStep, Walk } from '../screens/walk';

export { ErrorBoundary } from '../parts/error-boundary';

const WalkPlace = () => {
  const { step } = useLocalSearchParams<{ step?: string }>();
  return <Walk asked={isStep(step) ? step : null} />;
};

export default WalkPlace;
