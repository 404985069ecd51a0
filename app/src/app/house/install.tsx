export { Install as default } from '../../features/doorbell/screens/install';
export { ErrorBoundary } from '../../shell/offline/error-boundary';
