export { House as default } from '../../features/house/screens/house';
export { ErrorBoundary } from '../../shell/offline/error-boundary';
