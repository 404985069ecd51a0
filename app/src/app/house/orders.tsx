import { OrdersScreen } from '../../late/answering';

export { ErrorBoundary } from '../../shell/offline/error-boundary';

export default OrdersScreen;
