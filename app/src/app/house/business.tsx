export { BusinessPage as default } from '../../features/house/screens/business';
export { ErrorBoundary } from '../../shell/offline/error-boundary';
