import { useLocalSearchParams } from 'expo-router';
import { OrderEditor } from '../../../late/answering';

export { ErrorBoundary } from '../../../shell/offline/error-boundary';

/** An order, or a new one. */
const OrderPlace = () => {
  const { number } = useLocalSearchParams<{ number: string }>();
  return <OrderEditor key={number} place={number} />;
};

export default OrderPlace;
