import { OrdersScreen } from '../../features/orders/screens/orders';

export { ErrorBoundary } from '../../shell/offline/error-boundary';

export default OrdersScreen;
