export { SetUp as default } from '../features/entrance/screens/entrance';
export { ErrorBoundary } from '../shell/offline/error-boundary';
