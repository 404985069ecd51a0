export { DoorbellScreen as default } from '../../features/doorbell/screens/doorbell';
export { ErrorBoundary } from '../../shell/offline/error-boundary';
